import { queryOptions, useQuery } from "@tanstack/react-query";
import { useId, useRef } from "react";
import { createPortal } from "react-dom";
import { api, ok, type Schemas } from "../api/client";
import { key } from "../api/keys";
import { tr } from "../words/words";

type Word = Schemas["GlossaryTerm"];

/** The words that are explained: asked for once. */
export const glossaryQuery = queryOptions({
  queryKey: key("glossary"),
  queryFn: () => ok(api.GET("/api/glossary")),
  staleTime: Number.POSITIVE_INFINITY,
});

/** The word of the glossary that a text is, in any case. */
export function useWord(text: string): Word | undefined {
  const asked = text.trim().replace(/\s+/g, " ").toLowerCase();
  return useQuery(glossaryQuery).data?.find((t) => [t.name, ...t.also].some((w) => w.toLowerCase() === asked));
}

/** A word that opens what it means where it stands. */
export function Term({ children }: { children: string }) {
  const word = useWord(children);
  return word ? <Explained word={word}>{children}</Explained> : children;
}

/** A mark beside a label that opens what it means, nothing for a label that needs none. */
export function Meaning({ of }: { of: string }) {
  const word = useWord(of);
  return word ? (
    <Explained word={word} small>
      ?
    </Explained>
  ) : null;
}

function Explained({ word, small, children }: { word: Word; small?: boolean; children: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const id = useId();
  return (
    <>
      <button
        type="button"
        className={small ? "quiet -my-1 min-h-6 min-w-6 px-1 font-normal" : "linked text-inherit"}
        aria-haspopup="dialog"
        aria-label={small ? tr("What {name} means", { name: word.name }) : undefined}
        title={tr("What this means")}
        onClick={() => dialog.current?.showModal()}
      >
        {children}
      </button>
      {createPortal(
        <dialog ref={dialog} className="modal" aria-labelledby={id}>
          <div className="modal-box max-w-md border border-base-content bg-base-100 text-left text-base font-normal normal-case">
            <h2 id={id} className="text-xl">
              {word.name}
            </h2>
            <p className="mt-2">{word.says}</p>
            {word.own && <p className="quiet mt-1 text-sm">{tr("A word of this program.")}</p>}
            <form method="dialog" className="mt-4 text-right">
              <button type="submit" className="btn btn-neutral min-h-11">
                {tr("Close")}
              </button>
            </form>
          </div>
          <form method="dialog" className="modal-backdrop">
            <button type="submit" tabIndex={-1}>
              {tr("close")}
            </button>
          </form>
        </dialog>,
        document.body,
      )}
    </>
  );
}
