import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** The private address by which a calendar program reads the studio's meetings. */
export function Feed({ address }: { address: string }) {
	const act = useAct("below");
	return (
		<Section title="Your own calendar" under="meetings and dated tasks">
			<p>
				Subscribe to this address in your calendar program. Whoever knows it
				reads your meetings: keep it to yourself.
			</p>
			{address ? (
				<p className="py-2 font-[650] break-all">{address}</p>
			) : (
				<p className="py-2 text-soft">There is no address yet.</p>
			)}
			<Button
				disabled={act.busy}
				onClick={() => act.run(() => answer(api.POST("/api/studio/feed")))}
			>
				{address ? "Make a new address" : "Make the address"}
			</Button>
		</Section>
	);
}
