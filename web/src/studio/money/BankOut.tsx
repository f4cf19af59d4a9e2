import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BankOutDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useBankLine } from "./BankLine";
import { WriteCost } from "./WriteCost";

/** Money that went out: each line is a cost that was written down, or is written down now, or set aside. */
export function BankOut() {
	const out = useQuery({
		queryKey: ["over", "bank-out"],
		queryFn: () => answer(api.GET("/api/bank/out")),
	});
	if (!out.data?.length) return null;
	return (
		<section aria-label="Money that went out" className="pt-7">
			<h2 className="rule pb-1.5">
				Money that went out{" "}
				<span className="font-normal text-soft">{out.data.length}</span>
			</h2>
			{out.data.map((line) => (
				<Line key={line.id} line={line} />
			))}
		</section>
	);
}

function Line({ line }: { line: BankOutDto }) {
	const act = useBankLine(line.id);
	const [writing, setWriting] = useState(false);
	return (
		<article
			aria-label={`${line.said} to ${line.party || "somebody unnamed"}, ${line.day}`}
			className="border-b border-hair py-3"
		>
			<p className="flex gap-3">
				<span className="min-w-0 flex-1">
					<b className="font-[650]">{line.party || "no name"}</b>{" "}
					<span className="under">{line.day}</span>
				</span>
				<b className="num">− {line.said}</b>
			</p>
			{line.text && <p className="text-soft break-words">{line.text}</p>}
			<div className="flex flex-wrap gap-2 pt-2">
				{line.costs.map((cost) => (
					<Button
						key={cost.id}
						disabled={act.busy}
						onClick={() =>
							act.pays(cost.id, `${line.said} is ${cost.what}, ${cost.on}`)
						}
					>
						It is {cost.what}, {cost.on}
					</Button>
				))}
				<Button kind="word" onClick={() => setWriting(true)}>
					Write it down as a cost
				</Button>
				<Button kind="word" disabled={act.busy} onClick={act.setAside}>
					Set it aside
				</Button>
			</div>
			<Refused of={act.refusal} />
			{writing && (
				<WriteCost
					begins={{
						on: line.on,
						who: line.party,
						what: line.text,
						amount: line.amount,
					}}
					onKept={(cost) => act.pays(cost, `${line.said} written down`)}
					onClose={() => setWriting(false)}
				/>
			)}
		</article>
	);
}
