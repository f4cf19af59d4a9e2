import type {
	RoutineDraftDto,
	RoutinePageDto,
	StepDto,
} from "../../api/schema";

export const newStep = (
	draft: RoutineDraftDto,
	page: RoutinePageDto,
): StepDto => ({
	key: "",
	cause: draft.begins,
	count: 3,
	unit: "Days",
	at: "09:00:00",
	dateName: null,
	anyHour: false,
	does: "Letter",
	what: null,
	letter: page.choices.lists.letters[0]?.key ?? null,
	mode: "AsksFirst",
	stops: ["Answered"],
	lateStart: "Skip",
	sources: [],
	answers: [],
	in: [],
	favour: false,
});
