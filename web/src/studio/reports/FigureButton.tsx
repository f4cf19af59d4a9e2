import { createContext, type ReactNode, useContext } from "react";
import { Button } from "../../ui/Button";

/** Whether j and k walk the figures; not while the projects behind one are open, which they walk then. */
export const Walked = createContext(true);

/** A figure that opens the projects behind it. */
export function FigureButton({
	name,
	onOpen,
	children,
}: {
	/** What is read out, where the figure alone says too little; it holds the figure. */
	name?: string;
	onOpen: () => void;
	children: ReactNode;
}) {
	const walked = useContext(Walked);
	return (
		<Button
			kind="line"
			className="inline min-h-6 py-[3px] align-baseline"
			aria-label={name}
			data-walk={walked || undefined}
			onClick={onOpen}
		>
			<span className="num text-ink underline decoration-hair underline-offset-4">
				{children}
			</span>
		</Button>
	);
}
