import { useState } from "react";
import { answer, api } from "../api/client";

/** Begins a card payment of what is open and goes to the provider's page. */
export function usePay(link: string) {
	const [error, setError] = useState<Error>();
	const [busy, setBusy] = useState(false);
	async function pay() {
		setBusy(true);
		try {
			const { address } = await answer(
				api.POST("/p/{link}/api/pay", { params: { path: { link } } }),
			);
			location.assign(address);
		} catch (refusal) {
			setError(refusal as Error);
			setBusy(false);
		}
	}
	return { pay, error, busy };
}
