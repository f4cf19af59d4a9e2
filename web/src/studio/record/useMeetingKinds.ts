import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";

export const useKinds = () =>
	useQuery({
		queryKey: ["meeting-kinds"],
		queryFn: () => answer(api.GET("/api/meeting-kinds")),
	});
