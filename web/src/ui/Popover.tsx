import { Popover as Radix } from "radix-ui";
import { type ReactNode, useId } from "react";
import { Button } from "./Button";

/** A few choices that hang from their button; Escape or a press beside it closes it, and focus goes back. */
export function Popover({
	words,
	name,
	quiet,
	open,
	onOpen,
	children,
}: {
	words: ReactNode;
	/** What a screen reader calls it, where the words alone say too little. */
	name?: string;
	/** A small word inside text, instead of a button. */
	quiet?: boolean;
	open?: boolean;
	onOpen?: (open: boolean) => void;
	children: ReactNode;
}) {
	const trigger = useId();
	return (
		<Radix.Root open={open} onOpenChange={onOpen}>
			<Radix.Trigger asChild>
				<Button
					id={trigger}
					kind={quiet ? "word" : "plain"}
					size={quiet ? "small" : undefined}
					aria-label={name}
				>
					{words}
				</Button>
			</Radix.Trigger>
			<Radix.Portal>
				<Radix.Content
					aria-labelledby={trigger}
					align="end"
					sideOffset={4}
					collisionPadding={12}
					className="hanging"
				>
					{children}
				</Radix.Content>
			</Radix.Portal>
		</Radix.Root>
	);
}
