import { useState } from "react";
import { answer, api } from "../api/client";
import type { PaymentMeans } from "../api/schema";

/** Begins a payment of an invoice, the earliest open one if none is named, with or without the consent that it is kept, and goes to the provider's page. */
export function usePay(link: string) {
	const [error, setError] = useState<Error>();
	const [busy, setBusy] = useState(false);
	async function pay(means: PaymentMeans, invoice?: string, keeps = false) {
		setBusy(true);
		try {
			const { address } = await answer(
				api.POST("/p/{link}/api/pay", {
					params: { path: { link } },
					body: { means, invoice, keeps },
				}),
			);
			location.assign(address);
		} catch (refusal) {
			setError(refusal as Error);
			setBusy(false);
		}
	}
	return { pay, error, busy };
}
