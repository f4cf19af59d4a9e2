using Gesamt.Store.Model;

namespace Gesamt.Web.Inquiries;

/// <summary>Forms by the addresses they have and had.</summary>
public static class FormAddresses
{
    /// <summary>The form at an address: the one that has it, or had it before it got another.</summary>
    public static IQueryable<FormRow> At(this IQueryable<FormRow> forms, string slug) =>
        forms.Where(f => f.Slug == slug || ("\n" + f.EarlierSlugs + "\n").Contains("\n" + slug + "\n"));
}
