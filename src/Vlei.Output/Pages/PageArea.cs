namespace Vlei.Output.Pages;

/// <summary>A part of a page, in points from its top left corner.</summary>
internal readonly record struct PageArea(Sheet Sheet, double Left, double Right, double Top, double Bottom);
