import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Errors, Refusal, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";

const WORDS: Record<string, { word: string; border: string }> = {
  stop: { word: tr("This fails"), border: "border-error" },
  warning: { word: tr("Warning"), border: "border-warning" },
  note: { word: tr("Note"), border: "border-secondary" },
};

type About = {
  surfaceId: string;
  stepId: string;
  saved: boolean;
  /** Takes steps that mend a finding. */
  take: (steps: Schemas["Step"][]) => void;
};

/** What the rules have to say of a step; each can be mended by a press where that can be had, or let stand with a reason. */
export function Findings({ findings, ...about }: About & { findings: Schemas["Finding"][] }) {
  return findings.map((f) => <One key={f.rule + JSON.stringify(f.text)} f={f} {...about} />);
}

function One({ f, surfaceId, stepId, saved, take }: About & { f: Schemas["Finding"] }) {
  const { prose } = useSettings();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const set = useChange(
    ["steps"],
    (on: boolean) =>
      ok(
        api.POST("/api/surfaces/{id}/overrule", {
          params: { path: { id: surfaceId } },
          body: { stepId, rule: f.rule, reason, on },
        }),
      ),
    () => setOpen(false),
  );
  const w = WORDS[f.severity] ?? { word: tr("Note"), border: "border-base-300" };
  return (
    <div className={`mt-2 border-l-4 pl-3 text-sm ${f.overruled ? "border-base-300" : w.border}`} data-rule={f.rule}>
      <p className={f.overruled ? "quiet" : ""}>
        <b>{f.overruled ? tr("Let stand") : w.word}: </b>
        {prose(f.says)} <span className="quiet">{f.why}</span>
      </p>
      {f.overruled ? (
        <p>
          “{f.reason}”{" "}
          <button type="button" className="linked" onClick={() => set.mutate(false)}>
            {tr("let it count again")}
          </button>
        </p>
      ) : (
        <p>
          {f.fix} <span className="quiet">({f.source})</span>{" "}
          {f.mended && (
            <button type="button" className="btn btn-sm mr-2 min-h-11 sm:min-h-8" onClick={() => take(f.mended ?? [])}>
              {prose(f.mend?.says ?? [])}
            </button>
          )}
          {saved && !open && (
            <button type="button" className="linked" onClick={() => setOpen(true)}>
              {tr("overrule")}
            </button>
          )}
        </p>
      )}
      {open && (
        <Errors.Provider value={set.error?.fields ?? {}}>
          <form
            className="mt-1 flex flex-wrap items-end gap-2"
            noValidate
            onSubmit={(e) => {
              e.preventDefault();
              set.mutate(true);
            }}
          >
            <div className="grow">
              <TextField
                name="reason"
                label={tr("Why it may stand")}
                hint={tr("stays in the record")}
                value={reason}
                onChange={setReason}
              />
            </div>
            <button type="submit" className="btn mb-5 min-h-11">
              {tr("Let it stand")}
            </button>
          </form>
          <Refusal error={set.error} />
        </Errors.Provider>
      )}
    </div>
  );
}
