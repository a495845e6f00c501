import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { useLocation } from "wouter";
import { api, ok, type Refused, type Schemas } from "../api/client";
import { key } from "../api/keys";
import { HELP } from "../features/help/pages";
import { tr } from "../words/words";
import { useSettings } from "./settings";
import { mayLeave } from "./unsaved";

/** What a search can find or do. */
type Found = { kind: string; title: string; detail: string; go: () => void };

const KINDS: Record<string, string> = {
  do: tr("do"),
  boat: tr("boat"),
  surface: tr("surface"),
  defect: tr("defect"),
  product: tr("product"),
  task: tr("task"),
  log: tr("log"),
  word: tr("word"),
  page: tr("page"),
  help: tr("help"),
  setting: tr("setting"),
};

/** One search over all that is kept, the pages, the help, the words, and what can be done. Opened by / or ctrl k. */
export function Search({
  close,
  boatId,
  pages,
}: {
  close: () => void;
  boatId: string;
  pages: { name: string; path: string }[];
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const asked = useDeferredValue(typed.trim());
  const [, go] = useLocation();
  useEffect(() => dialog.current?.showModal(), []);
  const hits = useQuery<Schemas["Hit"][], Refused>({
    queryKey: key("search", asked, boatId),
    queryFn: () => ok(api.GET("/api/search", { params: { query: { q: asked, boat: boatId } } })),
    enabled: asked.length > 0,
    placeholderData: (old) => old,
    retry: false,
  });
  const own = useOwn(asked, pages);
  const found: Found[] = [
    ...own.filter((f) => f.kind === "setting"),
    ...(asked ? (hits.data ?? []) : []).map((h) => ({ ...h, go: () => go(h.path || "/help/words") })),
    ...own.filter((f) => f.kind !== "setting"),
  ];
  const take = (f: Found | undefined) => {
    if (!f || (f.kind !== "setting" && !mayLeave())) return;
    close();
    f.go();
  };
  return (
    <dialog ref={dialog} className="modal modal-top" aria-label={tr("Search")} onClose={close}>
      <div className="modal-box mx-auto mt-[8vh] max-w-2xl border border-base-content bg-base-100 p-0">
        <input
          type="search"
          className="input min-h-14 w-full border-0 border-b border-base-content bg-(--sheet) text-lg"
          aria-label={tr("Search, or say what to do")}
          placeholder={tr("A surface, product, word – or “log a wash on deck”, “imperial”")}
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            if (e.key === "ArrowDown") setAt(Math.min(at + 1, found.length - 1));
            else if (e.key === "ArrowUp") setAt(Math.max(at - 1, 0));
            else if (e.key === "Enter") take(found[at]);
            else return;
            e.preventDefault();
          }}
        />
        <ul className="max-h-[60vh] overflow-y-auto">
          {found.map((f, i) => (
            <li key={`${f.kind}${f.title}${f.detail}`}>
              <button
                type="button"
                className={`flex min-h-12 w-full items-baseline gap-3 px-4 py-2 text-left ${i === at ? "bg-base-200" : "hover:bg-base-200"}`}
                onClick={() => take(f)}
              >
                <span className="quiet w-16 shrink-0 text-xs">{KINDS[f.kind]}</span>
                <span>
                  <b className="font-semibold">{f.title}</b> <span className="quiet text-sm">{f.detail}</span>
                </span>
              </button>
            </li>
          ))}
          {asked && found.length === 0 && !hits.isFetching && (
            <li className="px-4 py-3">{tr("Nothing here is called that.")}</li>
          )}
        </ul>
        <form method="dialog" className="border-t border-base-300 p-2 text-right lg:hidden">
          <button type="submit" className="btn min-h-12">
            {tr("Close")}
          </button>
        </form>
      </div>
      <form method="dialog" className="modal-backdrop">
        <button type="submit" tabIndex={-1}>
          {tr("close")}
        </button>
      </form>
    </dialog>
  );
}

/** What this device finds by itself: pages, help, settings. */
function useOwn(asked: string, pages: { name: string; path: string }[]): Found[] {
  const [, go] = useLocation();
  const { units, setUnits, theme, setTheme } = useSettings();
  if (!asked) return [];
  const words = asked.toLowerCase().split(/\s+/);
  const fits = (text: string) => {
    const all = text.toLowerCase().split(/[\s,:()/.–-]+/);
    return words.every((w) => all.some((t) => t.startsWith(w)));
  };
  const settings: (Found & { words: string })[] = [
    {
      kind: "setting",
      title: tr("Imperial units"),
      detail: units === "imperial" ? tr("as it is") : tr("switch"),
      words: tr("imperial units feet gallons fahrenheit"),
      go: () => setUnits("imperial"),
    },
    {
      kind: "setting",
      title: tr("Metric units"),
      detail: units === "metric" ? tr("as it is") : tr("switch"),
      words: tr("metric units metres litres celsius"),
      go: () => setUnits("metric"),
    },
    {
      kind: "setting",
      title: tr("Light"),
      detail: theme === "paper" ? tr("as it is") : tr("switch"),
      words: tr("light theme paper day"),
      go: () => setTheme("paper"),
    },
    {
      kind: "setting",
      title: tr("Dark"),
      detail: theme === "lamp" ? tr("as it is") : tr("switch"),
      words: tr("dark theme night lamp"),
      go: () => setTheme("lamp"),
    },
  ];
  return [
    ...settings.filter((s) => fits(s.words)),
    ...pages
      .filter((p) => fits(p.name))
      .map((p) => ({ kind: "page", title: p.name, detail: "", go: () => go(p.path) })),
    ...HELP.filter((h) => fits(`help ${h.name} ${h.answers} ${h.steps.join(" ")}`)).map((h) => ({
      kind: "help",
      title: tr("Help: {name}", { name: h.name }),
      detail: h.answers,
      go: () => go(`/help/${h.key}`),
    })),
  ];
}
