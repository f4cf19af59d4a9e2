import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { AppointmentDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

const empty: AppointmentDto = {
	what: "",
	where: "",
	from: "",
	until: "",
	edition: null,
};

/** A time of one's own, without a client: kept, changed, taken out. No meeting is offered in it. */
export function Appointment({
	id,
	onClose,
}: {
	/** The one that is changed; left out for a new one. */
	id?: number;
	onClose: () => void;
}) {
	const kept = useQuery({
		queryKey: ["over", "appointment", id],
		queryFn: () =>
			answer(
				api.GET("/api/appointments/{id}", {
					params: { path: { id: id ?? 0 } },
				}),
			),
		enabled: id !== undefined,
		staleTime: 0,
	});
	return (
		<Window
			title={
				id === undefined ? "Keep a time of your own" : "A time of your own"
			}
			open
			onClose={onClose}
		>
			{id === undefined ? (
				<Fields was={empty} onClose={onClose} />
			) : (
				<Shown query={kept}>
					{(was) => <Fields id={id} was={was} onClose={onClose} />}
				</Shown>
			)}
		</Window>
	);
}

function Fields({
	id,
	was,
	onClose,
}: {
	id?: number;
	was: AppointmentDto;
	onClose: () => void;
}) {
	const [said, setSaid] = useState(was);
	// an hour long, until something else is said
	const [hasEnd, setHasEnd] = useState(was.until !== "");
	const act = useAct();
	const offer = useUndo();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			id === undefined
				? answer(api.POST("/api/appointments", { body: said }))
				: answer(
						api.PUT("/api/appointments/{id}", {
							params: { path: { id } },
							body: said,
						}),
					),
		);
		if (done) onClose();
	}
	const remove = (removed: boolean) =>
		answer(
			api.POST("/api/appointments/{id}/removed", {
				params: { path: { id: id ?? 0 } },
				body: { removed },
			}),
		);
	async function takeOut() {
		if (await act.run(() => remove(true))) {
			offer({
				words: `Taken out: ${was.what}`,
				undo: () => act.run(() => remove(false)),
			});
			onClose();
		}
	}
	return (
		<form onSubmit={keep} className="grid gap-3">
			<TextField
				label="What"
				value={said.what}
				wrong={act.refusal?.of("what")}
				onChange={(e) => setSaid({ ...said, what: e.target.value })}
			/>
			<MomentField
				label="From"
				value={said.from}
				wrong={act.refusal?.of("from")}
				onChange={(from) =>
					setSaid((now) => ({
						...now,
						from,
						until: hasEnd ? now.until : hourLater(from),
					}))
				}
			/>
			<MomentField
				label="Until"
				value={said.until}
				wrong={act.refusal?.of("until")}
				onChange={(until) => {
					setHasEnd(true);
					setSaid((now) => ({ ...now, until }));
				}}
			/>
			<TextField
				label="Where"
				value={said.where}
				wrong={act.refusal?.of("where")}
				onChange={(e) => setSaid({ ...said, where: e.target.value })}
			/>
			<p className="under">
				Clients are offered no time in it, and it counts as planned. They never
				see what it is.
			</p>
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button
					kind="go"
					type="submit"
					disabled={act.busy || !said.what.trim() || !said.from || !said.until}
				>
					Keep it
				</Button>
				{id !== undefined && (
					<Button disabled={act.busy} onClick={takeOut}>
						Take it out
					</Button>
				)}
			</div>
		</form>
	);
}

function hourLater(moment: string) {
	const match = /^(\d{4}-\d\d-\d\dT)(\d\d)(:.*)$/.exec(moment);
	const hour = Number(match?.[2]) + 1;
	return match && hour < 24
		? `${match[1]}${String(hour).padStart(2, "0")}${match[3]}`
		: "";
}
