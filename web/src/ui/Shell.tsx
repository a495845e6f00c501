import { useIsFetching } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { useLocation } from "wouter";
import type { Schemas } from "../api/client";
import { useBoats, usePlaces } from "../api/queries";
import { Visiting } from "../features/start/Visit";
import { tr } from "../words/words";
import { Alarms } from "./Alarms";
import { Aside } from "./Aside";
import { Controls } from "./Controls";
import { Failsafe } from "./Failsafe";
import { Outbox } from "./Outbox";
import { useKeptForOffline } from "./offline";
import { part } from "./part";
import { OTHERS, type Over, SCREENS } from "./screens";
import { Zone } from "./settings";
import { useLeaveAsked } from "./unsaved";
import { useKeys } from "./useKeys";
import { useRoute } from "./useRoute";

const Search = part(async () => (await import("./Search")).Search);
const Keys = part(async () => (await import("./Keys")).Keys);
const More = part(async () => (await import("./More")).More);

const NONE: Schemas["Boat"][] = [];

/** What is around every screen. */
export function Shell({ meta, children }: { meta: Schemas["Meta"]; children: ReactNode }) {
  const boats = useBoats().data ?? NONE;
  const places = usePlaces();
  const asking = useIsFetching() > 0;
  const main = useRef<HTMLElement>(null);
  const [over, setOver] = useState<Over>();
  const [, first = "", second, screen] = useLocation()[0].split("/");
  const ofBoat = first === "boats";
  const boat = useBoat(boats, ofBoat && screen ? second : undefined);
  const zone = places.data?.find((p) => p.id === boat?.placeId)?.timeZone ?? "UTC";
  useLeaveAsked();
  useKeptForOffline(boat?.id ?? "", boat?.placeId ?? "");
  useKeys(boats, boat, setOver);
  useRoute(
    main,
    (ofBoat ? SCREENS.find((p) => p.path === screen)?.name : OTHERS[first]) ?? "",
    ofBoat ? (boat?.name ?? "") : "",
  );
  const controls = <Controls meta={meta} zone={zone} openHelp={() => setOver("keys")} />;
  return (
    <div className="min-h-screen lg:grid lg:grid-cols-[176px_1fr]">
      <a
        href="#main"
        className="btn btn-neutral sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50"
      >
        {tr("To the page")}
      </a>
      <Aside boats={boats} boat={boat} open={setOver} controls={controls} />
      <Zone value={zone}>
        <main
          id="main"
          ref={main}
          tabIndex={-1}
          data-asking={asking ? "yes" : "no"}
          className="min-w-0 px-4 pb-24 outline-none pt-4 lg:px-8 lg:pb-10 lg:pt-5"
        >
          <Failsafe>
            <Visiting />
            <Outbox />
            {boat && <Alarms key={boat.id} boatId={boat.id} zone={zone} />}
          </Failsafe>
          <Failsafe>{children}</Failsafe>
          <footer className="rule-t mt-10 flex flex-wrap gap-x-5 gap-y-2 pt-3 text-sm lg:hidden">{controls}</footer>
        </main>
      </Zone>
      <Failsafe>
        {over === "search" && (
          <Search close={() => setOver(undefined)} boatId={boat?.id ?? ""} pages={ways(boat?.id, boats.length > 1)} />
        )}
        {over === "keys" && <Keys close={() => setOver(undefined)} />}
        {over === "more" && <More close={() => setOver(undefined)} boatId={boat?.id ?? ""} />}
      </Failsafe>
    </div>
  );
}

/** The boat of the address, else the one that was looked at last. */
function useBoat(boats: Schemas["Boat"][], boatId: string | undefined): Schemas["Boat"] | undefined {
  const [last, setLast] = useState(() => boatId ?? localStorage.getItem("boat") ?? "");
  useEffect(() => {
    if (!boatId) return;
    setLast(boatId);
    localStorage.setItem("boat", boatId);
  }, [boatId]);
  return boats.find((b) => b.id === last) ?? boats[0];
}

/** The pages that a search finds by their names. */
function ways(boatId: string | undefined, several: boolean): { name: string; path: string }[] {
  const { yard = "", ...others } = OTHERS;
  return [
    ...(several ? [{ name: yard, path: "/yard" }] : []),
    ...(boatId ? SCREENS.map((p) => ({ name: p.name, path: `/boats/${boatId}/${p.path}` })) : []),
    ...Object.entries(others).map(([path, name]) => ({ name, path: `/${path}` })),
    { name: tr("Add a boat"), path: "/boats/new" },
  ];
}
