import { answer, api } from "../../api/client";
import type { ListChangeDto, OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useKeys } from "../Keys";
import { useAct } from "../useAct";

/** What the client changed since the owner looked last, newest first: z undoes the newest, s says that all is seen. */
export function TheirChanges({ own }: { own: OwnListDto }) {
	const { changes, list } = own;
	const act = useAct();
	const offer = useUndo();
	const seen = (to: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/lists/{list}/seen", {
					params: { path: { list: list.id } },
					body: { seen: to },
				}),
			),
		);
	const set = (change: number, undone: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/lists/{list}/changes/{change}/undone", {
					params: { path: { list: list.id, change } },
					body: { undone },
				}),
			),
		);
	async function undo({ id, words }: ListChangeDto) {
		if (await set(id, true))
			offer({ words: `Undone: ${words}`, undo: () => set(id, false) });
	}
	const newest = changes[0];
	async function all() {
		if (newest && (await seen(true)))
			offer({ words: "Seen", undo: () => seen(false) });
	}
	useKeys({
		z: () => {
			if (newest) undo(newest);
		},
		s: all,
	});
	if (!newest) return <Refused of={act.refusal} />;
	return (
		<section
			aria-label="What the client changed"
			className="panel mb-4 max-w-[760px] px-4 py-2"
		>
			<div className="flex flex-wrap items-baseline gap-3">
				<h2 className="text-[16px]">
					{changes.length} change{changes.length === 1 ? "" : "s"} of the client
				</h2>
				<Button className="ml-auto" disabled={act.busy} onClick={all}>
					Seen <Kbd>s</Kbd>
				</Button>
			</div>
			<ul>
				{changes.map((change, at) => (
					<li key={change.id} className="flex items-baseline gap-3 py-1">
						<span className="min-w-0 break-words">{change.words}</span>
						<Button
							kind="word"
							className="ml-auto whitespace-nowrap"
							disabled={act.busy}
							onClick={() => undo(change)}
						>
							Undo
							{at === 0 && (
								<>
									{" "}
									<Kbd>z</Kbd>
								</>
							)}
							<span className="sr-only">: {change.words}</span>
						</Button>
					</li>
				))}
			</ul>
			<Refused of={act.refusal} />
		</section>
	);
}
