import { type ReactNode, useId, useState } from "react";

/** Something that is out of the way until its line is pressed (the disclosure of WAI-ARIA). */
export function Fold({
	line,
	begin = false,
	className,
	children,
}: {
	line: ReactNode;
	/** Whether it begins open. */
	begin?: boolean;
	className?: string;
	children: ReactNode;
}) {
	const [open, setOpen] = useState(begin);
	// what is typed in it stays while it is folded
	const [opened, setOpened] = useState(begin);
	const id = useId();
	return (
		<div className={className}>
			<button
				type="button"
				className="fold"
				aria-expanded={open}
				aria-controls={opened ? id : undefined}
				onClick={() => {
					setOpen(!open);
					setOpened(true);
				}}
			>
				{line}
			</button>
			{opened && (
				<div id={id} hidden={!open}>
					{children}
				</div>
			)}
		</div>
	);
}
