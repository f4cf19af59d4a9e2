import type { ReactNode } from "react";

/** A place where nothing is yet: what will appear here, and how to start. */
export function Empty({ children }: { children: ReactNode }) {
	return <p className="max-w-[60ch] py-3 text-soft">{children}</p>;
}
