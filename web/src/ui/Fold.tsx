import { type ReactNode, useId, useState } from "react";

/** Something that is out of the way until its line is pressed (the disclosure of WAI-ARIA). */
export function Fold({
	heading,
	line,
	begin = false,
	className,
	children,
}: {
	/** Makes it a heading, so that it is found in the list of them. */
	heading?: { level: 2 | 3; title: string };
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
	const button = (
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
			{heading && (
				<span className={`head-${heading.level}`}>{heading.title}</span>
			)}
			{line}
		</button>
	);
	const Heading = heading && (`h${heading.level}` as const);
	return (
		<div className={className}>
			{Heading ? (
				<Heading className="[font:inherit] [letter-spacing:inherit]">
					{button}
				</Heading>
			) : (
				button
			)}
			{opened && (
				<div id={id} hidden={!open}>
					{children}
				</div>
			)}
		</div>
	);
}
