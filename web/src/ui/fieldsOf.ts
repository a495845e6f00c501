/** Binds the fields of a thing that its owner changes, as an edition's at does: path is the one under which the server names the thing. */
export const fieldsOf =
  <T extends object>(thing: T, change: (more: Partial<T>) => void, path = "") =>
  <K extends keyof T & string>(k: K) => ({
    name: path ? `${path}.${k}` : k,
    value: thing[k],
    onChange: (v: unknown) => change({ [k]: v } as Partial<T>),
  });
