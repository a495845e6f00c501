import { useRef } from "react";
import type { Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { upload } from "../../api/upload";
import { Refusal } from "../../ui/Form";
import { tr, trNodes } from "../../words/words";

/** Data sheets in and out: JSON holds all of a sheet, CSV one row a product. */
export function Exchange() {
  const picked = useRef<HTMLInputElement>(null);
  const add = useChange(["library"], (f: File) =>
    upload<Schemas["Imported"]>("/api/library", { format: f.name.toLowerCase().endsWith(".csv") ? "csv" : "json" }, f),
  );
  return (
    <>
      <button type="button" className="btn min-h-11" disabled={add.isPending} onClick={() => picked.current?.click()}>
        {tr("Read data sheets")}
      </button>
      <input
        ref={picked}
        type="file"
        accept=".json,.csv"
        className="hidden"
        aria-label={tr("File of data sheets")}
        onChange={(e) => {
          const f = e.target.files?.[0];
          e.target.value = "";
          if (f) add.mutate(f);
        }}
      />
      <a className="btn min-h-11" href="/api/library?format=csv" download>
        {tr("Save as CSV")}
      </a>
      <a className="btn min-h-11" href="/api/library?format=json" download>
        {tr("Save as JSON")}
      </a>
      {add.data && (
        <p role="status" className="w-full">
          {trNodes("{added} added{known}.", {
            added: add.data.added,
            known:
              add.data.known > 0 &&
              tr("; {known} left out, the library has their names already", { known: add.data.known }),
          })}
        </p>
      )}
      <Refusal error={add.error} />
    </>
  );
}
