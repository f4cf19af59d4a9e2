import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { BillDraftDto, Every } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { DateField } from "../../ui/DateField";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { everyWords } from "../everyWords";
import { useAct } from "../useAct";

type Props = {
	project: number;
	draft: BillDraftDto;
	/** Whether it can be issued as it stands. */
	ready: boolean;
	onDone: () => void;
};

/** Lets what is written come again and again, by itself. */
export function ComeAgain(props: Props) {
	return (
		<section className="panel p-4" aria-label="Let it come again">
			<Fold line={<b>Let it come again</b>}>
				<Begin {...props} />
			</Fold>
		</section>
	);
}

function Begin({ project, draft, ready, onDone }: Props) {
	const [every, setEvery] = useState<Every>("Month");
	const [first, setFirst] = useState("");
	const [until, setUntil] = useState("");
	const [count, setCount] = useState<number | null>(null);
	const act = useAct();
	async function begin(event: FormEvent) {
		event.preventDefault();
		const begun = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/bill/recurring", {
					params: { path: { id: project } },
					body: {
						edition: draft.edition,
						every,
						first,
						until: until || null,
						count,
					},
				}),
			),
		);
		if (begun) onDone();
	}
	return (
		<form className="grid gap-3 pt-2" onSubmit={begin}>
			<p className="under">
				It is issued anew each time, with a number of its own and the time from
				its day to the next as its period, and goes out by letter.
			</p>
			<Select
				label="How often"
				value={every}
				onChange={(e) => setEvery(e.target.value as Every)}
			>
				{Object.entries(everyWords).map(([one, words]) => (
					<option key={one} value={one}>
						{words}
					</option>
				))}
			</Select>
			<DateField
				label="The first on"
				value={first}
				wrong={act.refusal?.of("first")}
				onChange={setFirst}
			/>
			<DateField
				label="Until"
				hint="left empty, until you stop it"
				value={until}
				wrong={act.refusal?.of("until")}
				onChange={setUntil}
			/>
			<CountField
				label="How many"
				hint="left empty, as many as fall until then"
				min={1}
				value={count}
				wrong={act.refusal?.of("count")}
				onChange={setCount}
			/>
			<Refused of={act.refusal} />
			<Button
				kind="go"
				type="submit"
				className="justify-self-start"
				disabled={!ready || !first || act.busy}
			>
				Begin, {everyWords[every]}
			</Button>
		</form>
	);
}

/** What was written of a recurring invoice is kept for all that lie ahead. */
export function KeepAhead({
	project,
	draft,
	ready,
	onDone,
}: Props & { draft: BillDraftDto }) {
	const act = useAct();
	return (
		<section className="panel grid gap-3 p-4" aria-label="Keep it">
			<h2>For all that lie ahead</h2>
			<p className="under">
				What was issued stays as it is. Each of those to come gets its number,
				its day and its period when it is issued.
			</p>
			<Refused of={act.refusal} />
			<Button
				kind="go"
				className="justify-self-start"
				disabled={!ready || act.busy}
				onClick={async () => {
					const kept = await act.run(() =>
						answer(
							api.PUT("/api/projects/{id}/recurring/{recurring}", {
								params: {
									path: { id: project, recurring: draft.for.of.changes! },
								},
								body: { edition: draft.edition },
							}),
						),
					);
					if (kept) onDone();
				}}
			>
				Keep it for those ahead
			</Button>
		</section>
	);
}
