import type { ReactNode } from "react";
import type { ListDto, ListEntryDto } from "../../api/schema";
import { moved, Sortable, SortableItem } from "../Sortable";
import { nameOf } from "./acts";

/** Pictures whose order is made by hand. */
export default function InOrder({
	list,
	className,
	onOrder,
	picture,
}: {
	list: ListDto;
	className: string;
	onOrder: (keys: string[]) => void;
	picture: (entry: ListEntryDto, handle: ReactNode) => ReactNode;
}) {
	const keys = list.entries.map((one) => one.key);
	return (
		<Sortable
			grid
			label={list.name}
			keys={keys}
			className={className}
			onMove={(from, to) => onOrder(moved(keys, from, to))}
		>
			{list.entries.map((entry) => (
				<SortableItem key={entry.key} id={entry.key} name={nameOf(entry)}>
					{(handle) => picture(entry, handle)}
				</SortableItem>
			))}
		</Sortable>
	);
}
