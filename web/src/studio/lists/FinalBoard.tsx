import { answer, api } from "../../api/client";
import type { OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** The end of a board: put to the client as the final one, who says yes to it; or collected further. */
export function FinalBoard({ own }: { own: OwnListDto }) {
	const act = useAct();
	const set = (final: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/lists/{list}/final", {
					params: { path: { list: own.list.id } },
					body: { final },
				}),
			),
		);
	return (
		<div className="flex flex-wrap items-center gap-3 pb-4">
			{own.final ? (
				<>
					<span>
						This is the final board, {own.list.state}. The client changes
						nothing on it.
					</span>
					<Button disabled={act.busy} onClick={() => set(false)}>
						Collect further
					</Button>
				</>
			) : (
				<Button disabled={act.busy} onClick={() => set(true)}>
					Put it up as the final board
				</Button>
			)}
			<Refused of={act.refusal} />
		</div>
	);
}
