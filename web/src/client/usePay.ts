import { useState } from "react";
import { post } from "../ui/http";

/** Begins a card payment of what is open and goes to the provider's page. */
export function usePay(base: string) {
	const [error, setError] = useState<Error>();
	const [busy, setBusy] = useState(false);
	async function pay() {
		setBusy(true);
		try {
			const { address } = await post<{ address: string }>(`${base}/pay`);
			location.assign(address);
		} catch (refusal) {
			setError(refusal as Error);
			setBusy(false);
		}
	}
	return { pay, error, busy };
}
