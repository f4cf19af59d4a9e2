import { type ReactNode, useEffect, useId, useState } from "react";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { useAct } from "./useAct";

/** The write that keeps a page of several sections at once. */
export function useKeepAll(write: () => Promise<unknown>) {
	const act = useAct();
	const [by, setBy] = useState<string>();
	return {
		busy: act.busy,
		refusal: act.refusal,
		/** The button that was pressed last: what was refused is said there alone. */
		by,
		keep: (button: string) => {
			setBy(button);
			return act.run(write);
		},
	};
}

/** The button under each section that keeps all of them; what was refused is marked where it stands, and the focus goes there. */
export function KeepAll({
	all,
	words,
	unchanged,
	beside,
}: {
	all: ReturnType<typeof useKeepAll>;
	words: string;
	unchanged: boolean;
	beside?: ReactNode;
}) {
	const id = useId();
	const refusal = all.by === id ? all.refusal : undefined;
	useEffect(() => {
		if (refusal?.hasFields)
			document
				.querySelector<HTMLElement>('main [aria-invalid="true"]')
				?.focus();
	}, [refusal]);
	return (
		<div className="pt-3">
			{refusal && (
				<Alert>
					{refusal.hasFields
						? "Something is not as it must be; it is marked where it stands."
						: refusal.message}
				</Alert>
			)}
			<div className="flex flex-wrap items-baseline gap-3 pt-2">
				<Button
					kind="go"
					disabled={all.busy || unchanged}
					aria-busy={all.busy}
					onClick={() => all.keep(id)}
				>
					{words}
				</Button>
				{beside}
			</div>
		</div>
	);
}
