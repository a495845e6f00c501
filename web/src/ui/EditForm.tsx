import type { UseMutationResult } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Refused, Words } from "../api/client";
import { tr } from "../words/words";
import { Conflict } from "./Conflict";
import { Errors, Refusal, unsendable } from "./Form";
import type { Edition, useEdition } from "./useEdition";

type Props<C extends { version: number }, T extends object, R> = {
  form: ReturnType<typeof useEdition<C, T>>;
  save: UseMutationResult<R, Refused, Edition<T>>;
  /** Paths of the figures that are needed. */
  needed?: string[];
  /** What else is wrong, by path. */
  wrong?: (edit: T) => Record<string, Words>;
  /** What was refused, by path, where that is more than what save was. */
  refused?: Record<string, Words>;
  /** Says what the button does that sends it. */
  says: string;
  cancel?: () => void;
  /** There is nothing to send. */
  idle?: boolean;
  className?: string;
  /** Stand between the two buttons. */
  buttons?: ReactNode;
  children: ReactNode;
};

/** The fields of an edition with the button that sends it, what was refused, and the choice when another has changed the same. */
export function EditForm<C extends { version: number }, T extends object, R>(props: Props<C, T, R>) {
  const {
    form,
    save,
    needed,
    wrong,
    refused = save.error?.fields,
    says,
    cancel,
    idle,
    className,
    buttons,
    children,
  } = props;
  const [tries, setTries] = useState(0);
  const ref = useRef<HTMLFormElement>(null);
  // The first field that is wrong is gone to.
  useEffect(() => {
    if (tries > 0) ref.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [tries]);
  const tried = tries > 0;
  const bad = { ...unsendable(form.edit, needed), ...wrong?.(form.edit) };
  const stays = Object.keys(bad).length > 0;
  const send = (sent: Edition<T>) => {
    save.reset();
    setTries(stays ? tries + 1 : 0);
    if (!stays) save.mutate(sent);
  };
  return (
    <Errors.Provider value={{ ...refused, ...(tried && bad) }}>
      <form
        ref={ref}
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
          {tried && stays && (
            <p className="text-error">
              {tr("Not sent yet: look for the fields in red, on every tab and in what is folded.")}
            </p>
          )}
          <div className="flex flex-wrap items-center gap-2">
            <button type="submit" className="btn btn-primary min-h-12" disabled={save.isPending || idle}>
              {says}
            </button>
            {buttons}
            {save.isSuccess && save.data && !form.changed && <span role="status">{tr("Saved.")}</span>}
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
