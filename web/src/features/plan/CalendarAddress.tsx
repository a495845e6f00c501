import { useState } from "react";
import { api, ok } from "../../api/client";
import { useChange, useFeed } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { tr } from "../../words/words";

/** The address by which a calendar program follows the plan, and the plan as a file. */
export function CalendarAddress({ placeId }: { placeId: string }) {
  const feed = useFeed(placeId).data;
  const [copied, setCopied] = useState(false);
  const make = useChange(
    ["plan"],
    () => ok(api.POST("/api/places/{id}/feed", { params: { path: { id: placeId } } })),
    () => setCopied(false),
  );
  const address = feed?.path ? `${location.origin}${feed.path}` : "";
  const copy = async () => {
    await navigator.clipboard.writeText(address);
    setCopied(true);
  };
  return (
    <section className="no-print mb-4 max-w-3xl border border-base-content p-4" aria-label={tr("Calendar")}>
      <p>
        {address
          ? tr(
              "Give your calendar program this address, and it follows the plan. Whoever has it sees the plan, and nothing else.",
            )
          : tr("A calendar program can follow the plan by an address of its own, without logging in.")}
      </p>
      {address && (
        <p className="mt-2 break-all">
          <a className="linked" href={address.replace(/^https?:/, "webcal:")}>
            {address}
          </a>
        </p>
      )}
      <Refusal error={make.error} />
      <div className="mt-3 flex flex-wrap gap-2">
        {address && (
          <button type="button" className="btn btn-primary min-h-11" onClick={() => void copy()}>
            {copied ? tr("Copied") : tr("Copy the address")}
          </button>
        )}
        <button
          type="button"
          className={`btn min-h-11 ${address ? "" : "btn-primary"}`}
          disabled={make.isPending}
          onClick={() => make.mutate(undefined)}
        >
          {address ? tr("Make another, and end this one") : tr("Make the address")}
        </button>
        <a className="btn btn-ghost min-h-11" href={`/api/places/${placeId}/plan.ics`}>
          {tr("As a file, once")}
        </a>
      </div>
    </section>
  );
}
