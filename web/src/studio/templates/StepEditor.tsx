import { Button } from "../../ui/Button";
import { Unless } from "./StepUnless";
import { What } from "./StepWhat";
import { When } from "./StepWhen";
import type { Props } from "./stepParts";

/** One step: when it acts, what it does, what ends it. */
export function StepEditor(props: Props) {
	const { step, onTakeOut, onUp, onDown } = props;
	return (
		<div className="grid gap-4 border-l-2 border-ink py-3 pl-4">
			<When {...props} />
			<What {...props} />
			<Unless {...props} />
			<div className="flex flex-wrap gap-4 text-small">
				{onUp && (
					<Button kind="word" onClick={onUp}>
						Move it up
					</Button>
				)}
				{onDown && (
					<Button kind="word" onClick={onDown}>
						Move it down
					</Button>
				)}
				<Button kind="word" onClick={onTakeOut}>
					Take this step out
				</Button>
				{step.key && <span className="text-soft">key: {step.key}</span>}
			</div>
		</div>
	);
}
