import { keepPreviousData, type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { named } from "../words/words";
import { api, ok, type Refused, type Schemas } from "./client";
import { changed, type Fact, key } from "./keys";
import { type Parcel, send } from "./outbox";

/** The products, with what their kind is: coats leaves thinners out. */
export function useCoats() {
  const kinds = useMeta().data?.kinds ?? [];
  const of = (flag: "coat" | "filler") => (p: Schemas["Product"]) =>
    kinds.some((k) => k.kind === p.sheet.kind && k[flag]);
  const products = useProducts().data ?? [];
  return { products, coats: products.filter(of("coat")), fillers: products.filter(of("filler")) };
}

/** What a limit of the weather is called. */
export function useLimits() {
  const limits = useMeta().data?.weather.limits ?? [];
  return (limit: string): Partial<Schemas["FieldLimitInfo"]> => limits.find((l) => l.limit === limit) ?? {};
}

export type Kind = Partial<Schemas["StepKind"]>;

/** What there is to know of a kind of work; nothing as long as the program has not said it. */
export function useKinds() {
  const works = useMeta().data?.works ?? [];
  return { works, kindOf: (work: string): Kind => works.find((k) => k.work === work) ?? {} };
}

const META = { queryKey: key("meta"), queryFn: () => ok(api.GET("/api/meta")) };
const BOATS = { queryKey: key("boats"), queryFn: () => ok(api.GET("/api/boats")) };
const PLACES = { queryKey: key("places"), queryFn: () => ok(api.GET("/api/places")) };
const todayOf = (boat: string) => ({
  queryKey: key("today", boat),
  queryFn: () => ok(api.GET("/api/boats/{id}/today", byID(boat))),
});

/** How long the first screen waits to be drawn once, with all that it shows, ms. */
const AT_ONCE_MS = 3000;

/** Has what the first screen shows, so that it is drawn once and not as each answer comes. */
export async function opening(queries: QueryClient) {
  const [, boat] = /^\/boats\/([^/]+)\/today$/.exec(location.pathname) ?? [];
  const all = [META, BOATS, PLACES, ...(boat ? [todayOf(boat)] : [])].map((q) => queries.prefetchQuery<unknown>(q));
  await Promise.race([Promise.all(all), new Promise((late) => setTimeout(late, AT_ONCE_MS))]);
}

export const useMeta = () => useQuery({ ...META, select: named });
export const useWho = () => useQuery({ queryKey: key("who"), queryFn: () => ok(api.GET("/api/who")) });
export const useUsers = () => useQuery({ queryKey: key("users"), queryFn: () => ok(api.GET("/api/users")) });
export const useAudit = () => useQuery({ queryKey: key("audit"), queryFn: () => ok(api.GET("/api/audit")) });
export const useBoats = () => useQuery(BOATS);
export const usePlaces = () => useQuery(PLACES);
export const useProducts = () => useQuery({ queryKey: key("products"), queryFn: () => ok(api.GET("/api/products")) });

const byID = (id: string) => ({ params: { path: { id } } });

export const useToday = (boat: string) => useQuery(todayOf(boat));
export const useSurvey = (boat: string) =>
  useQuery({ queryKey: key("survey", boat), queryFn: () => ok(api.GET("/api/boats/{id}/survey", byID(boat))) });
export const useLog = (boat: string) =>
  useQuery({ queryKey: key("log", boat), queryFn: () => ok(api.GET("/api/boats/{id}/log", byID(boat))) });
export const useBuildUp = (surface: string) =>
  useQuery({
    queryKey: key("build-up", surface),
    queryFn: () => ok(api.GET("/api/surfaces/{id}/build-up", byID(surface))),
    enabled: surface !== "",
  });
export const useJob = (boat: string) =>
  useQuery({
    queryKey: key("job", boat),
    queryFn: () => ok(api.GET("/api/boats/{id}/job", byID(boat))),
    enabled: boat !== "",
  });
export const useVerdict = (boat: string, q: { productId: string; surfaceId: string; method: string }) =>
  useQuery({
    queryKey: key("verdict", boat, q),
    queryFn: () => ok(api.GET("/api/boats/{id}/verdict", { params: { path: { id: boat }, query: q } })),
    enabled: q.productId !== "",
    placeholderData: keepPreviousData,
  });

/** A change on the server of these facts, after which what is made from them is asked for again. */
export function useChange<V, R>(facts: Fact[], fn: (v: V) => Promise<R>, done?: (r: R) => void) {
  const queries = useQueryClient();
  return useMutation<R, Refused, V>({
    mutationFn: fn,
    onSuccess: async (r) => {
      await changed(queries, facts);
      done?.(r);
    },
  });
}

/** A change that is written at the boat: kept on this device until the program has answered. */
export function useWritten<V, R>(facts: Fact[], parcels: (v: V) => Parcel[], done?: (r: R | "kept") => void) {
  return useChange<V, R | "kept">(
    facts,
    async (v) => {
      let first: R | "kept" | undefined;
      for (const p of parcels(v)) {
        const r = await send<R>(p);
        first ??= r;
      }
      return first ?? "kept";
    },
    done,
  );
}

export const usePhones = () =>
  useQuery({ queryKey: key("phones"), queryFn: () => ok(api.GET("/api/phones")), refetchInterval: 5000 });
export const useSystems = () => useQuery({ queryKey: key("systems"), queryFn: () => ok(api.GET("/api/systems")) });
export const useSchemes = (surface: string) =>
  useQuery({
    queryKey: key("schemes", surface),
    queryFn: () => ok(api.GET("/api/surfaces/{id}/schemes", byID(surface))),
  });
export const useOverview = (boat: string) =>
  useQuery({ queryKey: key("overview", boat), queryFn: () => ok(api.GET("/api/boats/{id}/overview", byID(boat))) });
export const useStores = (boatId: string) =>
  useQuery({
    queryKey: key("stores", boatId),
    queryFn: () => ok(api.GET("/api/stores", { params: { query: { boatId } } })),
  });

export const useInstruments = (place: string) =>
  useQuery({
    queryKey: key("instruments", place),
    queryFn: () => ok(api.GET("/api/places/{id}/instruments", byID(place))),
  });
export const useTrace = (id: string, from: string, to: string) =>
  useQuery({
    queryKey: key("trace", id, from, to),
    queryFn: () =>
      ok(api.GET("/api/instruments/{id}/readings", { params: { path: { id }, query: { from, to, points: 800 } } })),
    placeholderData: keepPreviousData,
  });
export const useCorrection = (boat: string) =>
  useQuery({ queryKey: key("correction", boat), queryFn: () => ok(api.GET("/api/boats/{id}/correction", byID(boat))) });
export const useTent = (boat: string) =>
  useQuery({ queryKey: key("tent", boat), queryFn: () => ok(api.GET("/api/boats/{id}/tent", byID(boat))) });
export const useYardPlan = (place: string) =>
  useQuery({
    queryKey: key("plan", place),
    queryFn: () => ok(api.GET("/api/places/{id}/plan", byID(place))),
    enabled: place !== "",
  });

type BenchAsk = NonNullable<import("./types.gen").paths["/api/boats/{id}/bench"]["get"]["parameters"]["query"]>;
export const useBench = (boat: string, q: BenchAsk = {}) =>
  useQuery({
    queryKey: key("bench", boat, q),
    queryFn: () => ok(api.GET("/api/boats/{id}/bench", { params: { path: { id: boat }, query: q } })),
    enabled: boat !== "",
    placeholderData: keepPreviousData,
  });
export const useAccounts = (boat: string) =>
  useQuery({ queryKey: key("accounts", boat), queryFn: () => ok(api.GET("/api/boats/{id}/accounts", byID(boat))) });
export const useUpkeep = (boat: string) =>
  useQuery({ queryKey: key("upkeep", boat), queryFn: () => ok(api.GET("/api/boats/{id}/upkeep", byID(boat))) });
export const useFeed = (place: string) =>
  useQuery({ queryKey: key("feed", place), queryFn: () => ok(api.GET("/api/places/{id}/feed", byID(place))) });
export const useQuotes = (boat: string) =>
  useQuery({ queryKey: key("quotes", boat), queryFn: () => ok(api.GET("/api/boats/{id}/quotes", byID(boat))) });
export const useLessons = (boat: string) =>
  useQuery({ queryKey: key("lessons", boat), queryFn: () => ok(api.GET("/api/boats/{id}/lessons", byID(boat))) });
export const useReport = (boat: string) =>
  useQuery({ queryKey: key("report", boat), queryFn: () => ok(api.GET("/api/boats/{id}/report", byID(boat))) });
export const useHistory = (entry: string) =>
  useQuery({ queryKey: key("history", entry), queryFn: () => ok(api.GET("/api/log/{id}/history", byID(entry))) });
export const useSuspects = (entry: string) =>
  useQuery({ queryKey: key("suspects", entry), queryFn: () => ok(api.GET("/api/log/{id}/suspects", byID(entry))) });
export const useFairing = (surface: string, set: string) =>
  useQuery({
    queryKey: key("fairing", surface, set),
    queryFn: () => ok(api.GET("/api/surfaces/{id}/fairing", { params: { path: { id: surface }, query: { set } } })),
    enabled: surface !== "",
    placeholderData: keepPreviousData,
  });
export const useSanding = (surface: string, q: { from: number; to: number; wet: boolean }) =>
  useQuery({
    queryKey: key("sanding", surface, q),
    queryFn: () => ok(api.GET("/api/surfaces/{id}/sanding", { params: { path: { id: surface }, query: q } })),
    enabled: surface !== "",
    placeholderData: keepPreviousData,
  });
export const useFinishWords = () =>
  useQuery({
    queryKey: key("finish-words"),
    queryFn: () => ok(api.GET("/api/finishes")),
    staleTime: Number.POSITIVE_INFINITY,
  });
export const useStarts = (boat: string) =>
  useQuery({
    queryKey: key("starts", boat),
    queryFn: () => ok(api.GET("/api/boats/{id}/starts", byID(boat))),
    enabled: boat !== "",
  });
