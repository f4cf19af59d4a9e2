import { Tooltip } from "radix-ui";
import type { ReactElement, ReactNode } from "react";

/** Around everything that has tips: once one is shown, the next comes at once. */
export const Tips = Tooltip.Provider;

/** More words about something, while it is pointed at or has the focus. */
export function Tip({
	words,
	children,
}: {
	words: ReactNode;
	children: ReactElement;
}) {
	if (!words) return children;
	return (
		<Tooltip.Root>
			<Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
			<Tooltip.Portal>
				<Tooltip.Content sideOffset={4} collisionPadding={12} className="tip">
					{words}
				</Tooltip.Content>
			</Tooltip.Portal>
		</Tooltip.Root>
	);
}
