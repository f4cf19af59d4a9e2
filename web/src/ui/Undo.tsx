import {
	createContext,
	type ReactNode,
	useCallback,
	useContext,
	useEffect,
	useState,
} from "react";
import { Button } from "./Button";

type Offer = {
	words: string;
	/** Takes back what was done; left out where it is only told. */
	undo?: () => Promise<unknown>;
	/** It stays until it is closed: something was refused. */
	stays?: boolean;
};

const Offering = createContext<(offer: Offer) => void>(() => undefined);

/** Offers to take back what was just done, as long as it has not left the house; or tells something in the same place. */
export const useUndo = () => useContext(Offering);

const seconds = 10;

export function UndoProvider({ children }: { children: ReactNode }) {
	const [offer, setOffer] = useState<Offer>();
	const show = useCallback((next: Offer) => setOffer(next), []);
	useEffect(() => {
		if (!offer || offer.stays) return;
		const timer = setTimeout(() => setOffer(undefined), seconds * 1000);
		return () => clearTimeout(timer);
	}, [offer]);
	return (
		<Offering.Provider value={show}>
			{children}
			<div
				role="status"
				className="fixed bottom-4 left-5 z-10 max-md:right-4 max-md:bottom-[68px] max-md:left-4"
			>
				{offer && (
					<div className="flex items-center gap-4 border-[1.5px] border-ink bg-sheet px-4 py-2.5">
						<span>{offer.words}</span>
						<Button
							onClick={async () => {
								setOffer(undefined);
								try {
									await offer.undo?.();
								} catch (refused) {
									show({ words: (refused as Error).message, stays: true });
								}
							}}
						>
							{offer.undo ? "Undo" : "Close"}
						</Button>
					</div>
				)}
			</div>
		</Offering.Provider>
	);
}
