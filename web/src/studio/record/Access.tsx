import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { AccessDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";
import { Block } from "./Block";

/** Links that are used often, and what the client gave access to, handed back at the end. */
export function Access({ record }: { record: RecordDto }) {
	const [open, setOpen] = useState<AccessDto | "new">();
	const { all, outstanding } = record.sheet.access;
	return (
		<Block title="Links and access">
			{outstanding && (
				<p className="font-[650]">
					The work is over: hand back what is still with you.
				</p>
			)}
			{all.length === 0 && (
				<p className="pb-2 text-[14.3px]">
					Links you need often, and what they gave you access to: a key, an
					account. What opens it is kept elsewhere; here stands where.
				</p>
			)}
			{all.map((one) => (
				<One
					key={one.id}
					project={record.id}
					one={one}
					onOpen={() => setOpen(one)}
				/>
			))}
			<Button className="mt-2" onClick={() => setOpen("new")}>
				Add one
			</Button>
			{open && (
				<Edit
					project={record.id}
					one={open === "new" ? undefined : open}
					onClose={() => setOpen(undefined)}
				/>
			)}
		</Block>
	);
}

function One({
	project,
	one,
	onOpen,
}: {
	project: number;
	one: AccessDto;
	onOpen: () => void;
}) {
	const act = useAct("below");
	const offer = useUndo();
	const back = (to: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/access/{one}/back", {
					params: { path: { id: project, one: one.id } },
					body: { back: to },
				}),
			),
		);
	return (
		<div className="border-b border-hair py-1.5 text-[14.3px]">
			{one.link ? (
				<Button asChild kind="word" className="font-[650]">
					<a href={one.place} target="_blank" rel="noreferrer noopener">
						{one.what}
					</a>
				</Button>
			) : (
				<>
					<b className="font-[650]">{one.what}</b>
					{one.place && `, ${one.place}`}
				</>
			)}
			{one.about && <span className="under block">{one.about}</span>}
			<span className="flex gap-3 text-small">
				<Button kind="word" onClick={onOpen}>
					Change<span className="sr-only">: {one.what}</span>
				</Button>
				{one.givenBy && !one.backOn && (
					<Button
						kind="word"
						disabled={act.busy}
						onClick={async () => {
							if (await back(true))
								offer({
									words: `Handed back: ${one.what}`,
									undo: () => back(false),
								});
						}}
					>
						Handed back<span className="sr-only">: {one.what}</span>
					</Button>
				)}
			</span>
		</div>
	);
}

function Edit({
	project,
	one,
	onClose,
}: {
	project: number;
	one?: AccessDto;
	onClose: () => void;
}) {
	const [what, setWhat] = useState(one?.what ?? "");
	const [place, setPlace] = useState(one?.place ?? "");
	const [givenBy, setGivenBy] = useState(one?.givenBy ?? "");
	const [since, setSince] = useState<string>(one?.since ?? "");
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	const keep = (event: FormEvent) => {
		event.preventDefault();
		act.run(async () => {
			const body = { what, place, givenBy, since: since || null };
			await answer(
				one
					? api.PUT("/api/projects/{id}/access/{one}", {
							params: { path: { id: project, one: one.id } },
							body,
						})
					: api.POST("/api/projects/{id}/access", {
							params: { path: { id: project } },
							body,
						}),
			);
			onClose();
		});
	};
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<Window title={one ? one.what : "A link, or access"} open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField
					label="What it is"
					placeholder="Site office key, drawings folder"
					value={what}
					wrong={wrong("what")}
					onChange={(e) => setWhat(e.target.value)}
				/>
				<TextField
					label="Where it is"
					hint="a link, or where it is kept; never the secret itself"
					value={place}
					wrong={wrong("place")}
					onChange={(e) => setPlace(e.target.value)}
				/>
				<TextField
					label="Who gave it"
					hint="empty for a plain link"
					value={givenBy}
					wrong={wrong("givenBy")}
					onChange={(e) => setGivenBy(e.target.value)}
				/>
				{givenBy && (
					<DateField
						label="Since"
						back
						value={since}
						wrong={wrong("since")}
						onChange={setSince}
					/>
				)}
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep it
					</Button>
					{one && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(one.what, (removed) =>
									answer(
										api.POST("/api/projects/{id}/access/{one}/removed", {
											params: { path: { id: project, one: one.id } },
											body: { removed },
										}),
									),
								)
							}
						>
							Take it out
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
