import type { ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useLocation } from "react-router";
import { tr } from "../words/words";

/** Keeps a fault of one screen to that screen: it says so and offers a way on, the rest of the program stays. */
export function Failsafe({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary resetKeys={[pathname]} fallbackRender={({ resetErrorBoundary }) => <Failed again={resetErrorBoundary} />}>
      {children}
    </ErrorBoundary>
  );
}

function Failed({ again }: { again: () => void }) {
  return (
    <div role="alert">
      <h1 className="text-2xl">{tr("This screen failed.")}</h1>
      <p className="mt-2">
        {tr("What was saved is safe, and the other screens work. Try again; if it fails again, reload the page with the program running.")}
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
