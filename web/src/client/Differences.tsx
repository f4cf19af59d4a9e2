import type { DifferenceDto } from "../api/schema";

const words: Record<DifferenceDto["sort"], string> = {
	Added: "new",
	Gone: "gone",
	Dearer: "dearer",
	Cheaper: "cheaper",
	Changed: "changed",
};

/** What changed from the version before, a line each. */
export function Differences({ of }: { of: readonly DifferenceDto[] }) {
	return (
		<dl className="grid gap-1 pt-2 text-[14.5px]">
			{of.map((one, i) => (
				<div key={i} className="grid gap-x-3 sm:grid-cols-[5.2em_1fr]">
					<dt className="font-[650]">{words[one.sort]}</dt>
					<dd className="min-w-0 break-words">
						{one.what}
						<span className="block whitespace-pre-line text-soft">
							{one.before && <del className="pr-2">{short(one.before)}</del>}
							{one.after && (
								<ins className="no-underline">{short(one.after)}</ins>
							)}
						</span>
					</dd>
				</div>
			))}
		</dl>
	);
}

/** Long texts are read where they stand; here it is enough to know that they differ. */
const short = (text: string) =>
	text.length > 160 ? `${text.slice(0, 157)}…` : text;
