import { useEffect } from "react";

const kept = new Set<string>();
/** Quiet first: what is on the screen comes before what may be wanted later. */
const AFTER_MS = 2500;

/** Lets the service worker see a boat's data once, so that her screens open without a signal. */
export function useKeptForOffline(boatId: string, placeId: string) {
  useEffect(() => {
    if (!boatId || !("serviceWorker" in navigator)) return;
    const boat = `/api/boats/${boatId}`;
    const keep = async () => {
      if (!navigator.serviceWorker.controller || kept.has(boatId) || !navigator.onLine) return;
      kept.add(boatId);
      try {
        const survey = await fetch(`${boat}/survey`);
        const { surfaces = [] } = (await survey.json()) as { surfaces?: { id: string }[] };
        const rest = ["today", "log", "bench", "accounts", "report"].map((p) => `${boat}/${p}`);
        const shared = [
          "/api/meta",
          "/api/boats",
          "/api/places",
          "/api/products",
          `/api/places/${placeId}/instruments`,
          `/api/places/${placeId}/plan`,
        ];
        for (const url of [...rest, ...shared, ...surfaces.map((s) => `/api/surfaces/${s.id}/build-up`)]) await fetch(url);
      } catch {
        kept.delete(boatId); // no answer: the next visit tries again
      }
    };
    const timer = setTimeout(keep, AFTER_MS);
    navigator.serviceWorker.addEventListener("controllerchange", keep);
    return () => {
      clearTimeout(timer);
      navigator.serviceWorker.removeEventListener("controllerchange", keep);
    };
  }, [boatId, placeId]);
}
