using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Testimonials;

/// <summary>What a client lets the studio say and show: on their page from the day they were asked, and theirs to take back.</summary>
public static class ClientTestimonial
{
    public static RouteGroupBuilder MapClientTestimonial(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/testimonial/approve",
            async (ApproveWordsDto words, HttpContext http, Desk desk) =>
            {
                await ApproveAsync(desk, ClientLink.Link(http).ProjectId, words);
                return TypedResults.NoContent();
            }
        );
        page.MapPost(
            "/testimonial/decline",
            async (HttpContext http, Desk desk) =>
            {
                await DeclineAsync(desk, ClientLink.Link(http).ProjectId);
                return TypedResults.NoContent();
            }
        );
        page.MapPost(
            "/leave",
            async (AnswerLeaveDto said, HttpContext http, Desk desk) =>
            {
                await AnswerAsync(desk, ClientLink.Link(http).ProjectId, said);
                return TypedResults.NoContent();
            }
        );
        page.MapPost(
            "/leave/revoke",
            async (RevokeLeaveDto leave, HttpContext http, Desk desk) =>
            {
                await RevokeAsync(desk, ClientLink.Link(http).ProjectId, leave.To);
                return TypedResults.NoContent();
            }
        );
        return page;
    }

    /// <summary>Null for who was never asked, and let nothing be quoted or shown.</summary>
    public static async Task<ShownTestimonialDto?> ShownAsync(Desk desk, ProjectFile file)
    {
        var state = TestimonialRule.Of(file.History);
        if (state == Testimonial.None || !IsShown(state))
            return null;
        var versions = await PraiseOfProject.VersionsAsync(desk, file.Id);
        return new(
            state.IsOpen,
            PraiseOfProject.Quotable(versions, state.Put) ?? new("", ""),
            state.Put is { } put && versions.TryGetValue(put, out var version) ? version.Hash : "",
            PraiseOfProject.Quotable(versions, state.Approved),
            state.ApprovedAt is { } at ? PraiseOfProject.Day(desk, at) : null,
            [
                .. Enum.GetValues<LeaveTo>()
                    .Where(to => IsShown(state, to))
                    .Select(to => PraiseOfProject.LeaveOf(desk, state.Of(to), to, versions)),
            ]
        );
    }

    private static bool IsShown(Testimonial state) =>
        state.IsOpen || state.Approved is not null || Enum.GetValues<LeaveTo>().Any(to => IsShown(state, to));

    /// <summary>To quote is asked for once there are words to quote.</summary>
    private static bool IsShown(Testimonial state, LeaveTo to) =>
        state.Of(to).State is not LeaveState.Unasked
        && (to == LeaveTo.Show || state.Of(to).State != LeaveState.Asked || state.Approved is not null);

    /// <exception cref="RefusedException">The words were changed or taken back while they were read.</exception>
    internal static Task ApproveAsync(Desk desk, ProjectId project, ApproveWordsDto words) =>
        desk.ActAsync(async act =>
        {
            var (file, put) = await OpenAsync(act, project);
            if (put.Hash != words.Hash)
                throw new RefusedException("The words were changed while you read them. Load the page again.");
            var approved = PraiseOfProject.Read(words.Words, words.Name, least: 1);
            var version =
                approved == Versions.Read<QuotableDto>(put)
                    ? put
                    : await Versions.AddAsync(desk, project, PaperSort.Testimonial, approved);
            await act.RecordAsync(file, Actor.Client, new Happening.TestimonialApproved(version.Id));
        });

    private static Task DeclineAsync(Desk desk, ProjectId project) =>
        desk.ActAsync(async act =>
        {
            var (file, _) = await OpenAsync(act, project);
            await act.RecordAsync(file, Actor.Client, new Happening.TestimonialDeclined());
        });

    /// <exception cref="RefusedException">It is not asked for, or was answered already.</exception>
    internal static Task AnswerAsync(Desk desk, ProjectId project, AnswerLeaveDto said) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var state = TestimonialRule.Of(file.History);
            if (state.Of(said.To).State != LeaveState.Asked || !IsShown(state, said.To))
                throw new RefusedException("This is not asked for any more. Load the page again.");
            if (said.Wording != TestimonialRule.Wording(said.To, desk.Studio.Name))
                throw new RefusedException("The sentence was changed while you read it. Load the page again.");
            await act.RecordAsync(
                file,
                Actor.Client,
                await PraiseOfProject.AnswerAsync(
                    desk,
                    project,
                    said.To,
                    said.Given ? LeaveState.Given : LeaveState.Refused,
                    said.Wording
                )
            );
        });

    internal static Task RevokeAsync(Desk desk, ProjectId project, LeaveTo to) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            PraiseOfProject.Revocable(file, to);
            await act.RecordAsync(file, Actor.Client, new Happening.LeaveRevoked(to));
        });

    private static async Task<(ProjectFile File, VersionRow Put)> OpenAsync(Act act, ProjectId project)
    {
        var file = await act.OpenAsync(project);
        var state = TestimonialRule.Of(file.History);
        if (!state.IsOpen)
            throw new RefusedException("No words wait for you any more. Load the page again.");
        return (file, (await PraiseOfProject.VersionsAsync(act.Desk, project))[state.Put!.Value]);
    }
}
