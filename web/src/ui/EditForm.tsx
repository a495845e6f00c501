import type { UseMutationResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Refused, Words } from "../api/client";
import { tr } from "../words/words";
import { Conflict } from "./Conflict";
import { Errors, Refusal } from "./Form";
import type { Edition, useEdition } from "./useEdition";

type Props<C extends { version: number }, T extends object, R> = {
  form: ReturnType<typeof useEdition<C, T>>;
  save: UseMutationResult<R, Refused, Edition<T>>;
  /** Paths of the figures that are needed. */
  needed?: string[];
  /** What else is wrong, by path. */
  wrong?: (edit: T) => Record<string, Words>;
  /** Says what the button does that sends it. */
  says: string;
  cancel?: () => void;
  className?: string;
  /** Stand between the two buttons. */
  buttons?: ReactNode;
  children: ReactNode;
};

/** The fields of an edition with the button that sends it, what was refused, and the choice when another has changed the same. */
export function EditForm<C extends { version: number }, T extends object, R>(props: Props<C, T, R>) {
  const { form, save, needed, wrong, says, cancel, className, buttons, children } = props;
  const send = (sent: Edition<T>) => {
    save.reset();
    if (form.sendable(needed, wrong?.(form.edit))) save.mutate(sent);
  };
  return (
    <Errors.Provider value={{ ...save.error?.fields, ...form.errors }}>
      <form
        className={className}
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          send(form.sent);
        }}
      >
        {children}
        <div className="mt-4 flex flex-col gap-3">
          <Refusal error={save.error?.status === 409 ? null : save.error} />
          <div className="flex flex-wrap items-center gap-2">
            <button type="submit" className="btn btn-primary min-h-12" disabled={save.isPending}>
              {says}
            </button>
            {buttons}
            {cancel && (
              <button type="button" className="btn btn-ghost min-h-12" onClick={cancel}>
                {tr("Cancel")}
              </button>
            )}
          </div>
        </div>
      </form>
      <Conflict
        error={save.error}
        mine={form.edit}
        stored={form.of}
        onMine={(c: C) => send(form.over(c))}
        onTheirs={(c) => {
          form.take(c);
          save.reset();
        }}
      />
    </Errors.Provider>
  );
}
