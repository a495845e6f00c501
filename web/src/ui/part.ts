import { type ComponentType, lazy } from "react";

/** A part of the program that did not come: the program does not run, or another version of it does. */
export class NotLoaded extends Error {}

/** A screen that comes when it is first asked for. */
export const part = <P extends object>(load: () => Promise<ComponentType<P>>) =>
  lazy(async () => {
    try {
      return { default: await load() };
    } catch (e) {
      throw new NotLoaded(String(e));
    }
  });
