import type { ReactNode } from "react";
import { Instants, Num, Pick, Rows, Text, Tick, When } from "./fields";
import { useDraft } from "./useWork";

type Below<T, P extends string> = T extends readonly (infer U)[]
  ? P | Below<NonNullable<U>, `${P}[${number}]`>
  : T extends object
    ? P | { [K in keyof T & string]: Below<NonNullable<T[K]>, `${P}.${K}`> }[keyof T & string]
    : P;

/** The fields of a work, by their paths: "zones[1].areaM2". */
export type Path<W> = { [K in keyof W & string]: Below<NonNullable<W[K]>, K> }[keyof W & string];

type At<W, C extends (props: never) => ReactNode> = (
  props: Omit<Parameters<C>[0], "at"> & { at: Path<W> },
) => ReactNode;

type Fields<W> = {
  Num: At<W, typeof Num>;
  Text: At<W, typeof Text>;
  Pick: At<W, typeof Pick>;
  Tick: At<W, typeof Tick>;
  When: At<W, typeof When>;
  Instants: At<W, typeof Instants>;
  /** Its rows are named by the list that they are of. */
  Rows: <P extends Path<W>>(
    props: Omit<Parameters<typeof Rows>[0], "at" | "children"> & {
      at: P;
      children: (path: `${P}[${number}]`, i: number) => ReactNode;
    },
  ) => ReactNode;
  useDraft: () => { read: (at: Path<W>) => unknown; write: (at: Path<W>, value: unknown) => void };
};

/** The fields for the work of one craft: a path that its work has not does not compile. */
export const fieldsOf = <W>() => ({ Num, Text, Pick, Tick, When, Instants, Rows, useDraft }) as unknown as Fields<W>;
