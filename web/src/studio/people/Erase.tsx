import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { ErasingDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** What would be gone of somebody, what the law keeps, and then the act that cannot be taken back. */
export function Erase({
	id,
	onLeaving,
	onClose,
}: {
	id: number;
	/** Whether it is being done: nothing of them is to be asked for meanwhile. */
	onLeaving: (leaving: boolean) => void;
	onClose: () => void;
}) {
	const [going, setGoing] = useState(false);
	const erasing = useQuery({
		enabled: !going,
		queryKey: ["over", "erasing", id],
		queryFn: () =>
			answer(api.GET("/api/people/{id}/erasing", { params: { path: { id } } })),
	});
	return (
		<Window
			title={erasing.data ? `Erase ${erasing.data.name}` : "Erase"}
			open
			onClose={onClose}
			wide
		>
			<Shown query={erasing}>
				{(data) => (
					<Told
						id={id}
						erasing={data}
						onGoing={(now) => {
							setGoing(now);
							onLeaving(now);
						}}
						onClose={onClose}
					/>
				)}
			</Shown>
		</Window>
	);
}

function Told({
	id,
	erasing,
	onGoing,
	onClose,
}: {
	id: number;
	erasing: ErasingDto;
	onGoing: (going: boolean) => void;
	onClose: () => void;
}) {
	const act = useAct();
	const go = useNavigate();
	async function erase() {
		onGoing(true);
		const done = await act.run(async () => {
			await answer(
				api.POST("/api/people/{id}/erase", { params: { path: { id } } }),
			);
			go("/people");
		});
		if (!done) onGoing(false);
	}
	return (
		<div className="grid gap-4">
			{erasing.hinders.length > 0 && (
				<section>
					<h3>Not yet</h3>
					<ul>
						{erasing.hinders.map((one) => (
							<li key={one.project} className="border-b border-hair py-1.5">
								{one.sentence}{" "}
								<Button asChild kind="word">
									<Link to={`/projects/${one.project}`}>
										Open it<span className="sr-only">: {one.title}</span>
									</Link>
								</Button>
							</li>
						))}
					</ul>
				</section>
			)}
			<Lines title="Gone for good" lines={erasing.goes} />
			<Lines
				title="Kept, because the law asks for it"
				lines={erasing.stays}
				none="Nothing."
			/>
			<p>
				What happened stays, with its days and sums, and names nobody.{" "}
				{erasing.backups} What lies with your mail provider and your bank you
				ask them for.
			</p>
			{erasing.elsewhere.length > 0 && (
				<section>
					<h3>Their name stands elsewhere too</h3>
					<p className="under">
						In other projects somebody wrote it down. That stays as it is: look
						it over.
					</p>
					<ul>
						{erasing.elsewhere.map((one) => (
							<li key={one.project}>
								<Button asChild kind="word">
									<Link to={`/projects/${one.project}`}>{one.title}</Link>
								</Button>
							</li>
						))}
					</ul>
				</section>
			)}
			{erasing.hinders.length === 0 && (
				<>
					<p className="font-[650]">This cannot be taken back.</p>
					<Refused of={act.refusal} />
					<div className="flex flex-wrap gap-2">
						<Button onClick={onClose}>Leave it as it is</Button>
						<Button kind="go" disabled={act.busy} onClick={erase}>
							{act.busy ? "One moment" : "Erase for good"}
						</Button>
					</div>
				</>
			)}
		</div>
	);
}

function Lines({
	title,
	lines,
	none,
}: {
	title: string;
	lines: readonly string[];
	none?: string;
}) {
	return (
		<section>
			<h3>{title}</h3>
			{lines.length === 0 && <p className="under">{none}</p>}
			<ul>
				{lines.map((line) => (
					<li key={line} className="border-b border-hair py-1.5">
						{line}
					</li>
				))}
			</ul>
		</section>
	);
}
