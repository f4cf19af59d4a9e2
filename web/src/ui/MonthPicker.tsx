import { Popover } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { Button } from "./Button";
import { Month } from "./Month";
import { studioDay } from "./today";

/** A small month that hangs from a date field. */
export default function MonthPicker({
	label,
	day,
	onPick,
	onClose,
}: {
	label: string;
	day: string | undefined;
	onPick: (day: string) => void;
	onClose: () => void;
}) {
	const [today, setToday] = useState<string>();
	const trigger = useRef<HTMLButtonElement>(null);
	useEffect(() => {
		studioDay().then(setToday);
	}, []);
	function close() {
		// the button goes with the month; the field takes the focus back
		trigger.current?.parentElement?.querySelector("input")?.focus();
		onClose();
	}
	return (
		<Popover.Root open onOpenChange={(open) => !open && close()}>
			<Popover.Trigger asChild>
				<Button ref={trigger} kind="word" size="small" className="field-end">
					pick<span className="sr-only"> the day: {label}</span>
				</Button>
			</Popover.Trigger>
			<Popover.Portal>
				<Popover.Content
					align="end"
					sideOffset={6}
					collisionPadding={12}
					aria-label={`Pick the day: ${label}`}
					className="hanging w-[276px] p-3"
					onOpenAutoFocus={(event) => event.preventDefault()}
				>
					{today && (
						<Month
							day={day}
							today={today}
							onPick={(picked) => {
								onPick(picked);
								close();
							}}
						/>
					)}
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
	);
}
