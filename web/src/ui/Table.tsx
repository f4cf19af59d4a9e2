import type { ComponentProps, ReactNode } from "react";

/** Rows under headings; where it is too wide for its place it scrolls inside it. */
export function Table({
	caption,
	shown,
	head,
	children,
}: {
	/** What the table is of. */
	caption?: ReactNode;
	shown?: boolean;
	head?: ReactNode;
	children: ReactNode;
}) {
	return (
		<div className="relative overflow-x-auto">
			<table className="w-full border-collapse text-[14.3px]">
				{caption && (
					<caption className={shown ? "pb-1 text-left font-[650]" : "sr-only"}>
						{caption}
					</caption>
				)}
				{head && (
					<thead className="rule text-left font-head text-[13px]">{head}</thead>
				)}
				{children}
			</table>
		</div>
	);
}

/** A heading of a column. */
export function Head({
	end,
	className = "",
	...props
}: ComponentProps<"th"> & { end?: boolean }) {
	return (
		<th
			scope="col"
			className={`py-1.5 pr-3 font-semibold ${end ? "text-right" : ""} ${className}`}
			{...props}
		/>
	);
}

/** A field of a row; figures stand at the end. */
export function Cell({
	end,
	sum,
	className = "",
	...props
}: ComponentProps<"td"> & {
	end?: boolean;
	/** Of a row that heads or closes others. */
	sum?: boolean;
}) {
	return (
		<td
			className={`border-b py-1.5 pr-3 ${sum ? "border-ink align-bottom font-[650]" : "border-hair align-top"} ${end ? "num text-right whitespace-nowrap" : ""} ${className}`}
			{...props}
		/>
	);
}
