import type {
	ChoiceDto,
	RoutineChoicesDto,
	StepDoes,
	StepDto,
	VariantDto,
} from "../../api/schema";

export type Props = {
	step: StepDto;
	choices: RoutineChoicesDto;
	variants: readonly VariantDto[];
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<StepDto>) => void;
	onTakeOut: () => void;
	onUp?: () => void;
	onDown?: () => void;
};

/** What goes with what a step does: a letter, an OK, the hours of the post. */
export const actOf = (does: StepDoes, choices: RoutineChoicesDto) =>
	choices.acts.find((act) => act.does === does);

/** While it is typed, a comma at the end stays to be gone on from. */
export const parts = (text: string) =>
	text === "" ? [] : text.split(",").map((one) => one.replace(/^ /, ""));

export function Options({ of }: { of: Record<string, string> }) {
	return Object.entries(of).map(([value, words]) => (
		<option key={value} value={value}>
			{words}
		</option>
	));
}

export function listOf(
	does: StepDoes,
	choices: RoutineChoicesDto,
): readonly ChoiceDto[] | undefined {
	switch (does) {
		case "Form":
			return choices.lists.forms;
		case "Times":
			return choices.lists.meetings;
		case "Tasks":
			return choices.lists.taskLists;
		case "FollowOn":
			return choices.lists.kinds;
		case "Hook":
			return choices.lists.hooks;
		case "OpenPart":
			return choices.lists.parts;
		default:
			return undefined;
	}
}
