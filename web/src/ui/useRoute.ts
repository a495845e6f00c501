import { type RefObject, useEffect, useRef } from "react";
import { useLocation } from "wouter";

/** The title says which page is shown, and the keyboard goes on from its beginning when another is. */
export function useRoute(main: RefObject<HTMLElement | null>, page: string, boat: string) {
  const [pathname] = useLocation();
  const was = useRef(pathname);
  useEffect(() => {
    document.title = [page, boat, "All Coats"].filter(Boolean).join(" · ");
  }, [page, boat]);
  useEffect(() => {
    if (was.current === pathname) return;
    was.current = pathname;
    if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
  }, [main, pathname]);
}
