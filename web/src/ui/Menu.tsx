import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./Button";

/** Acts that hang from one button, walked by the arrow keys. */
export function Menu({
	words,
	look = "plain",
	items,
}: {
	words: ReactNode;
	/** Along the bottom edge of a phone it is a place like the others. */
	look?: "plain" | "edge";
	items: { words: string; act: () => void }[];
}) {
	return (
		<DropdownMenu.Root modal={false}>
			<DropdownMenu.Trigger asChild>
				{look === "edge" ? (
					<Button
						kind="line"
						className="grid min-h-14 place-items-center font-head text-[13.5px] font-medium text-(--bar-ink)"
					>
						{words}
					</Button>
				) : (
					<Button>{words}</Button>
				)}
			</DropdownMenu.Trigger>
			<DropdownMenu.Portal>
				<DropdownMenu.Content
					align="start"
					sideOffset={4}
					collisionPadding={12}
					className="hanging"
				>
					{items.map((item) => (
						<DropdownMenu.Item
							key={item.words}
							className="hanging-item"
							onSelect={item.act}
						>
							{item.words}
						</DropdownMenu.Item>
					))}
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root>
	);
}
