import type { ListItemDto } from "../../api/schema";

export const fresh: ListItemDto = {
	title: "",
	count: -14,
	unit: "Days",
	phase: null,
	doneBy: null,
};
