import { type ComponentType, type ReactNode, useEffect, useState } from "react";

/** A part of the program that did not come: the program does not run, or another version of it does. */
export class NotLoaded extends Error {}

/**
 * A part of the program that comes when it is first asked for, with what stands in its place until then. It is shown as
 * soon as it is there: React holds back for a third of a second what follows a fallback of Suspense.
 */
export function part<P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: (props: P) => ReactNode = () => null,
) {
  let here: ComponentType<P> | undefined;
  // biome-ignore lint/correctness/noComponentHookFactories: made once for each part, where modules begin, as React's own lazy is
  return function Part(props: P) {
    const [Shown, show] = useState(() => here);
    const [missing, miss] = useState<NotLoaded>();
    useEffect(() => {
      if (Shown) return;
      let gone = false;
      load().then(
        (loaded) => {
          here = loaded;
          if (!gone) show(() => loaded);
        },
        (e) => !gone && miss(new NotLoaded(String(e))),
      );
      return () => {
        gone = true;
      };
    }, [Shown]);
    if (missing) throw missing;
    return Shown ? <Shown {...props} /> : meanwhile(props);
  };
}
