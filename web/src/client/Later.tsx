import { type ReactNode, Suspense } from "react";

/** A part of a page that comes when it is first wanted, with a word in its place until then. */
export function Later({ children }: { children: ReactNode }) {
	return (
		<Suspense fallback={<p className="text-soft">One moment</p>}>
			{children}
		</Suspense>
	);
}
