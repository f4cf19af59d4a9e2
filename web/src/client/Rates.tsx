import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { Tick } from "../ui/Tick";

/** A rate sheet: what things cost, to tick what interests. */
export function Rates({
	page,
	link,
	reload,
}: {
	page: ClientPageDto;
	link: string;
	reload: () => Promise<void>;
}) {
	const [ticked, setTicked] = useState<readonly number[]>([]);
	const [refusal, setRefusal] = useState<Refusal>();
	const [sent, setSent] = useState(false);
	const rates = page.parts.rates;
	async function send(event: FormEvent) {
		event.preventDefault();
		try {
			await answer(
				api.POST("/p/{link}/api/rate-sheet", {
					params: { path: { link } },
					body: { services: [...ticked] },
				}),
			);
			setSent(true);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	if (!rates)
		return (
			sent && (
				<p role="status" className="mb-6 bg-plaster p-4 font-[650]">
					Thank you, {page.studio.owner} sees what you ticked.
				</p>
			)
		);
	return (
		<form
			noValidate
			id="rates"
			aria-label="What things cost"
			className="grid max-w-xl gap-3 pb-10"
			onSubmit={send}
		>
			<div>
				<h2 className="rule pb-1.5">What things cost</h2>
				<p className="pt-2">
					Tick what interests you. It binds you to nothing; a proposal follows.
				</p>
			</div>
			{rates.map((one) => (
				<Tick
					key={one.service}
					className="border-b border-hair pb-3"
					label={
						<span className="flex flex-col gap-x-4 sm:flex-row sm:justify-between">
							<b className="font-[650]">{one.title}</b>
							<span className="num text-soft sm:text-right">{one.price}</span>
						</span>
					}
					under={one.detail}
					checked={ticked.includes(one.service)}
					onChange={(on) =>
						setTicked(
							on
								? [...ticked, one.service]
								: ticked.filter((other) => other !== one.service),
						)
					}
				/>
			))}
			{refusal?.of("services") && (
				<p className="wrong">{refusal.of("services")}</p>
			)}
			<Refused of={refusal?.of("services") ? undefined : refusal} />
			<div>
				<Button kind="brand" size="big" type="submit">
					Send what I ticked
				</Button>
			</div>
		</form>
	);
}
