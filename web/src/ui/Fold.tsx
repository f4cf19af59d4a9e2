import { Collapsible } from "radix-ui";
import { type ReactNode, useState } from "react";

/** Something that is out of the way until its line is pressed. */
export function Fold({
	line,
	begin = false,
	className = "",
	children,
}: {
	line: ReactNode;
	/** Whether it begins open. */
	begin?: boolean;
	className?: string;
	children: ReactNode;
}) {
	const [open, setOpen] = useState(begin);
	return (
		<Collapsible.Root open={open} onOpenChange={setOpen} className={className}>
			<Collapsible.Trigger className="fold">{line}</Collapsible.Trigger>
			<Collapsible.Content>{children}</Collapsible.Content>
		</Collapsible.Root>
	);
}
