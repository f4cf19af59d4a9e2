import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";

/** Says that the screen is covered, and how it is shown again. */
export function CoverStrip({ onShow }: { onShow: () => void }) {
	return (
		<p
			role="status"
			className="closed-day flex flex-wrap items-baseline gap-x-3 border-b border-ink px-5 py-1.5 max-md:px-4 print:hidden"
		>
			<b className="bg-plaster px-1 font-[650]">
				Names and amounts are hidden.
			</b>
			<Button kind="word" className="bg-plaster px-1" onClick={onShow}>
				Show them again <Kbd>v</Kbd>
			</Button>
		</p>
	);
}
