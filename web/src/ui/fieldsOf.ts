/** Binds the fields of a thing that its owner changes, as an edition's at does: path is the one under which the server names the thing. */
export const fieldsOf =
  <T extends object>(thing: T, change: (more: Partial<T>) => void, path = "") =>
  <K extends keyof T & string>(k: K) => ({
    name: path ? `${path}.${k}` : k,
    value: thing[k],
    onChange: (v: unknown) => change({ [k]: v } as Partial<T>),
  });

/** As fieldsOf, of figures that are 0 where there is none. */
export const figuresOf = <T extends object>(thing: T, change: (more: Partial<T>) => void, path = "") => {
  const at = fieldsOf(thing, change, path);
  return <K extends keyof T & string>(k: K) => ({
    ...at(k),
    value: (thing[k] as number | undefined) || undefined,
    onChange: (v: number | undefined) => change({ [k]: v ?? 0 } as Partial<T>),
  });
};
