using Gesamt.Core.Forms;

namespace Gesamt.Web.Checklists;

/// <summary>A checklist of the project’s kind, as far as it is answered.</summary>
/// <param name="Given">By the key of each question.</param>
/// <param name="Tasks">What its answers made, by the key of the question.</param>
public sealed record ChecklistDto(
    int Id,
    string Title,
    string Intro,
    IReadOnlyList<FormField> Fields,
    IReadOnlyDictionary<string, string> Given,
    ChecklistStandsDto Stands,
    IReadOnlyDictionary<string, ChecklistTaskDto> Tasks,
    int Edition
);

/// <summary>How far a checklist is.</summary>
/// <param name="Words">“5 of 6 answered, Mon 25 Jan”.</param>
/// <param name="BeforeDraft">Whether no draft is put up before it is gone through.</param>
/// <param name="Lacks">What keeps a draft from being put up; null where nothing of this list does.</param>
public sealed record ChecklistStandsDto(string Words, bool BeforeDraft, string? Lacks);

/// <summary>A task that an answer made.</summary>
public sealed record ChecklistTaskDto(string Title, bool Done);

/// <summary>A checklist as it is answered.</summary>
/// <param name="Answers">By the key of each question; what is left out is not answered.</param>
/// <param name="Edition">The one that was answered; 0 for the first time.</param>
public sealed record AnswerChecklistDto(Dictionary<string, string> Answers, int Edition);
