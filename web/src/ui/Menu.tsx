import { DropdownMenu } from "radix-ui";
import { Fragment, type ReactNode } from "react";
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
	/** Those of a group stand together, under its name. */
	items: {
		words: string;
		act: () => void;
		key?: string | number;
		group?: string;
	}[];
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
					{items.map((item, i) => (
						<Fragment key={item.key ?? item.words}>
							{item.group && item.group !== items[i - 1]?.group && (
								<DropdownMenu.Label className="under px-1.5 pt-2">
									{item.group}
								</DropdownMenu.Label>
							)}
							<DropdownMenu.Item className="hanging-item" onSelect={item.act}>
								{item.words}
							</DropdownMenu.Item>
						</Fragment>
					))}
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root>
	);
}
