import { useContext } from "react";
import { Errors } from "../../ui/Form";

/** A part of the sheet; one that says what is in it is folded until it is opened, or something in it is wrong. */
export function Part({
  title,
  note,
  folded,
  fields = [],
  children,
}: {
  title: string;
  note?: string;
  folded?: string;
  fields?: string[];
  children: React.ReactNode;
}) {
  const errors = useContext(Errors);
  const wrong = Object.keys(errors).some((k) => fields.some((f) => k.startsWith(f)));
  const inside = (
    <>
      {note && <p className="quiet mb-2 text-sm">{note}</p>}
      {children}
    </>
  );
  if (folded === undefined)
    return (
      <section className="border-t border-base-content pt-3">
        <h2 className="text-lg">{title}</h2>
        {inside}
      </section>
    );
  return (
    <details className="border-t border-base-content pt-3" open={wrong || undefined}>
      <summary className="min-h-11 cursor-pointer content-center">
        <h2 className="inline text-lg">{title}</h2> <span className="quiet text-sm">{folded}</span>
      </summary>
      {inside}
    </details>
  );
}
