import { BookOpen } from "lucide-react";
import { useEffect, useRef } from "react";
import { tr } from "../words/words";
import { NavLink } from "./NavLink";
import { atTheBoat, SCREENS } from "./screens";

/** The screens that a phone's row has no room for. */
export function More({ close, boatId }: { close: () => void; boatId: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const row = "btn btn-ghost min-h-14 justify-start border-base-300";
  return (
    <dialog ref={dialog} className="modal modal-bottom" aria-label={tr("More")} onClose={close}>
      <div className="modal-box border-t border-base-content bg-base-100">
        <div className="grid grid-cols-2 gap-2">
          {boatId &&
            SCREENS.filter((p) => !atTheBoat(p.path)).map(({ path, name, icon: Icon }) => (
              <NavLink key={path} to={`/boats/${boatId}/${path}`} className={row} onClick={close}>
                <Icon size={18} aria-hidden="true" />
                {name}
              </NavLink>
            ))}
          <NavLink to="/library" className={row} onClick={close}>
            <BookOpen size={18} aria-hidden="true" />
            {tr("Library")}
          </NavLink>
        </div>
        <form method="dialog" className="mt-3">
          <button type="submit" className="btn btn-neutral min-h-12 w-full">
            {tr("Close")}
          </button>
        </form>
      </div>
    </dialog>
  );
}
