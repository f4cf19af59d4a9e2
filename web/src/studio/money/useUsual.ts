import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";

/** What is usual when money is written down: categories, payees, accounts. */
export const useUsual = () =>
	useQuery({
		queryKey: ["over", "book-usual"],
		queryFn: () => answer(api.GET("/api/costs/usual")),
	}).data;
