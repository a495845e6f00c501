import { type ReactNode, useEffect, useRef } from "react";

/** A table that stands row by row on a narrow screen, each cell with its column's name before it. */
export function Reflow({ children, testid }: { children: ReactNode; testid?: string }) {
  const ref = useRef<HTMLDivElement>(null);
  // After every drawing: the columns may have changed.
  useEffect(() => {
    for (const table of ref.current?.querySelectorAll("table") ?? []) {
      const names = [...table.querySelectorAll("thead tr:last-child > *")].flatMap((c) =>
        Array.from({ length: (c as HTMLTableCellElement).colSpan || 1 }, () =>
          c.querySelector(".sr-only") ? "" : (c.textContent?.trim() ?? ""),
        ),
      );
      for (const row of table.querySelectorAll("tbody tr")) {
        let at = 0;
        for (const cell of row.querySelectorAll<HTMLTableCellElement>(":scope > td")) {
          const name = names[at];
          if (at > 0 && name) cell.dataset.label = name;
          else delete cell.dataset.label;
          at += cell.colSpan || 1;
        }
      }
    }
  });
  return (
    <div ref={ref} className="stacked overflow-x-auto" data-testid={testid}>
      {children}
    </div>
  );
}
