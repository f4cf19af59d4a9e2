import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Alert } from "./Alert";

/** Shows what was asked for once it is there, or why it is not. */
export function Shown<T>({
	query,
	usual,
	children,
}: {
	query: UseQueryResult<T>;
	/** Leads away from what cannot be shown, where an address can ask for such. */
	usual?: ReactNode;
	children: (data: T) => ReactNode;
}) {
	if (query.data !== undefined) return <>{children(query.data)}</>;
	if (query.error)
		return (
			<div className="p-5">
				<Alert>{query.error.message}</Alert>
				{usual && <p className="pt-3">{usual}</p>}
			</div>
		);
	return <p className="p-5 text-soft">One moment</p>;
}

/** The same of a whole page, whose main part comes with what was asked for: until then, and where it does not come, this is the main part. */
export function ShownPage<T>(page: Parameters<typeof Shown<T>>[0]) {
	return page.query.data === undefined ? (
		<main>
			<Shown {...page} />
		</main>
	) : (
		page.children(page.query.data)
	);
}
