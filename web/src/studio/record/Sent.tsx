import { useEffect, useRef, useState } from "react";
import { answer, api } from "../../api/client";
import type { SentDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Seconds that “it has left” stays in sight. */
const shownFor = 4;

/** It was sent, and can be taken back for a moment. */
export function Sent({
	sent,
	later,
	onClose,
	onBack,
}: {
	sent: SentDto;
	later?: boolean;
	onClose: () => void;
	onBack: () => void;
}) {
	const act = useAct();
	const gone = useGone(sent, later, onClose);
	return (
		<div role="status" className="grid gap-3">
			<h2>
				{later
					? "It goes out later"
					: gone
						? "It leaves the house"
						: "It is on its way"}
			</h2>
			<p>
				{later
					? "It stands on the line and can be taken back until then."
					: gone
						? "It cannot be taken back any more. The line says when it was sent."
						: `You can take it back for ${sent.holdSeconds} seconds; then it leaves the house.`}
			</p>
			<div className="flex gap-2">
				<Button kind="go" onClick={onClose}>
					Close
				</Button>
				{!gone && (
					<Button
						disabled={act.busy}
						onClick={async () => {
							if (
								await act.run(() =>
									answer(
										api.POST("/api/letters/{id}/take-back", {
											params: { path: { id: sent.letter } },
										}),
									),
								)
							)
								onBack();
						}}
					>
						Take it back
					</Button>
				)}
			</div>
			<Refused of={act.refusal} />
		</div>
	);
}

/** Whether the time to take a letter back is over; a little later the sheet comes back by itself. */
export function useGone(
	sent: SentDto,
	later: boolean | undefined,
	onClose: () => void,
) {
	const [gone, setGone] = useState(false);
	const close = useRef(onClose);
	close.current = onClose;
	useEffect(() => {
		if (later) return;
		const leaves = setTimeout(() => setGone(true), sent.holdSeconds * 1000);
		const closes = setTimeout(
			() => close.current(),
			(sent.holdSeconds + shownFor) * 1000,
		);
		return () => {
			clearTimeout(leaves);
			clearTimeout(closes);
		};
	}, [sent, later]);
	return gone;
}
