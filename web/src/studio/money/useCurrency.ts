import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";

/** The studio's own currency, by ISO 4217. */
export const useCurrency = () =>
	useQuery({
		queryKey: ["studio"],
		queryFn: () => answer(api.GET("/api/studio")),
	}).data?.said.money.currency ?? "EUR";
