import { Fold } from "../../ui/Fold";
import type { Handing } from "./useHandIn";

type Refused = Handing["refused"];

/** What was handed in and is not kept, under its reason: a folder of drawings gives the same one many times. */
export function NotKept({ refused }: { refused: Refused }) {
	return (
		<Fold line={`${refused.length} not kept`}>
			<div className="grid gap-3 text-[14.3px]">
				{byReason(refused).map(([reason, alike]) => (
					<div key={reason}>
						<p>{reason}</p>
						<ul className="text-soft">
							{alike.map(({ path }) => (
								<li key={path} className="break-words">
									{path}
								</li>
							))}
						</ul>
					</div>
				))}
			</div>
		</Fold>
	);
}

/** Most reasons begin with the name of their file, which tells them apart and nothing else. */
function byReason(refused: Refused): [string, Refused][] {
	const groups = new Map<string, Refused>();
	for (const one of refused) {
		const reason = one.why.replace(/^“[^”]*”/, "Each of these");
		groups.set(reason, [...(groups.get(reason) ?? []), one]);
	}
	return [...groups].map(([reason, alike]) => [
		alike.length === 1 && alike[0] ? alike[0].why : reason,
		alike,
	]);
}
