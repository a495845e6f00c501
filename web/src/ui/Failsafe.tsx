import { type ReactNode, useEffect } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useLocation } from "wouter";
import { tr } from "../words/words";
import { NotLoaded } from "./part";

/** Keeps a fault of one screen to that screen: it says so and offers a way on, the rest of the program stays. */
export function Failsafe({ children }: { children: ReactNode }) {
  const [pathname] = useLocation();
  return (
    <ErrorBoundary
      resetKeys={[pathname]}
      fallbackRender={({ error, resetErrorBoundary }) =>
        error instanceof NotLoaded ? <Missing /> : <Failed again={resetErrorBoundary} />
      }
    >
      {children}
    </ErrorBoundary>
  );
}

/** How often is asked whether the program answers again, ms. */
const ASK_MS = 3000;

/** A part of the program that did not come is there again with the page, as soon as the program answers: nothing was typed into it yet. */
function Missing() {
  useEffect(() => {
    const timer = setInterval(async () => {
      const answer = await fetch("/healthz").catch(() => undefined);
      if (answer?.ok) location.reload();
    }, ASK_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <div role="alert">
      <h1 className="text-2xl">{tr("This screen could not be loaded.")}</h1>
      <p className="mt-2">
        {tr(
          "The program does not answer, or it was renewed meanwhile. The screen comes by itself when it answers; the others work.",
        )}
      </p>
      <button type="button" className="btn btn-neutral mt-3 min-h-11" onClick={() => location.reload()}>
        {tr("Load it again")}
      </button>
    </div>
  );
}

function Failed({ again }: { again: () => void }) {
  return (
    <div role="alert">
      <h1 className="text-2xl">{tr("This screen failed.")}</h1>
      <p className="mt-2">
        {tr(
          "What was saved is safe, and the other screens work. Try again; if it fails again, reload the page with the program running.",
        )}
      </p>
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn btn-neutral min-h-11" onClick={again}>
          {tr("Try again")}
        </button>
        <button type="button" className="btn min-h-11" onClick={() => location.reload()}>
          {tr("Reload")}
        </button>
      </div>
    </div>
  );
}
