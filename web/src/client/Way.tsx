import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";

const steps = ["Choose", "Sign", "Book"] as const;
const words = { Choose: "Choose", Sign: "Read and sign", Book: "Book" };

/** The steps to a booking: where they are, and the way back to what they have done. */
export function Way({
	page,
	link,
	at,
	onChoose,
}: {
	page: ClientPageDto;
	link: string;
	at: (typeof steps)[number];
	/** Back to the choice, while it can be changed. */
	onChoose?: () => void;
}) {
	const here = steps.indexOf(at);
	return (
		<nav aria-label="The steps to your booking" className="pb-4">
			<ol className="flex flex-wrap gap-x-5 gap-y-1 text-[14.5px]">
				{steps.map((step, i) => (
					<li
						key={step}
						aria-current={step === at ? "step" : undefined}
						className={step === at ? "font-[650]" : "text-soft"}
					>
						{i + 1}.{" "}
						{step === "Choose" && i < here && onChoose ? (
							<Button kind="word" onClick={onChoose}>
								{words[step]}
							</Button>
						) : step === "Sign" && i < here ? (
							<Button asChild kind="word">
								<a href={`/p/${link}/api/contract.pdf`}>{words[step]}</a>
							</Button>
						) : (
							words[step]
						)}
						{i < here && (
							<>
								, done
								{step === "Sign" &&
									page.booking.contract?.signatures.every(
										(signature) => signature.side !== "client",
									) &&
									" on paper"}
							</>
						)}
					</li>
				))}
			</ol>
		</nav>
	);
}
