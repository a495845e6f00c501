import type { ReactNode } from "react";
import { Link, useLocation } from "wouter";

/** A link that says whether its page, or one below it, is the one shown. */
export function NavLink({
  to,
  className,
  onClick,
  children,
}: {
  to: string;
  className: string | ((here: boolean) => string);
  onClick?: () => void;
  children: ReactNode;
}) {
  const [at] = useLocation();
  const here = at === to || at.startsWith(`${to}/`);
  return (
    <Link
      to={to}
      className={typeof className === "string" ? className : className(here)}
      aria-current={here ? "page" : undefined}
      onClick={onClick}
    >
      {children}
    </Link>
  );
}
