import { useQuery } from "@tanstack/react-query";
import type { MeetingKindDto } from "../../api/schema";
import { get } from "../../ui/http";

export const useKinds = () =>
	useQuery({
		queryKey: ["meeting-kinds"],
		queryFn: () => get<MeetingKindDto[]>("/api/meeting-kinds"),
	});
