import type { ReactNode } from "react";

/** The key that does the same; not shown where there are no keys. */
export function Kbd({ children }: { children: ReactNode }) {
	return <kbd className="kbd max-md:hidden">{children}</kbd>;
}
