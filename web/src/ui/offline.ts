import { useEffect } from "react";
import type { Schemas } from "../api/client";

const read = async <T>(url: string): Promise<T> => (await fetch(url)).json();

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
        const { surfaces } = (await survey.json()) as Schemas["Survey"];
        const rest = ["log", "bench", "accounts", "report"].map((p) => `${boat}/${p}`);
        const place = ["instruments", "plan"].map((p) => `/api/places/${placeId}/${p}`);
        for (const url of [...rest, "/api/boats", "/api/places", ...place]) await fetch(url);
        const today = await read<Schemas["Today"]>(`${boat}/today`);
        const { kinds } = await read<Schemas["Meta"]>("/api/meta");
        const products = await read<Schemas["Product"][]>("/api/products");
        const builds = new Map<string, Schemas["BuildUp"]>();
        for (const s of surfaces) builds.set(s.id, await read(`/api/surfaces/${s.id}/build-up`));
        if (!matchMedia("(max-width: 900px), (pointer: coarse)").matches) return; // it does not go to the boat
        await (await import("../pocket/pocket")).carry();
        const coat = products.find((p) => kinds.some((k) => k.kind === p.sheet.kind && k.coat))?.id ?? "";
        // As Weather asks for what comes next on each surface.
        const verdicts = surfaces.map((s) => {
          const next = today.answer.lanes.find((l) => l.surfaceId === s.id)?.nextStepId;
          const step = builds.get(s.id)?.steps.find((b) => b.id === next);
          return `${boat}/verdict?${new URLSearchParams({ productId: step?.productId ?? coat, surfaceId: s.id, method: step?.method ?? "" })}`;
        });
        const more = ["correction", "tent", "job", "starts", "finishes/refit"].map((p) => `${boat}/${p}`);
        const benches = surfaces.flatMap((s) => [
          `/api/surfaces/${s.id}/fairing?set=`,
          ...s.crafts.map((c) => `/api/surfaces/${s.id}/finishes/${c}`),
        ]);
        for (const url of [...verdicts, ...more, `/api/stores?boatId=${boatId}`, "/api/finishes", ...benches])
          await fetch(url);
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
