using System.Text;

namespace Vlei.Output.Pages;

/// <summary>
/// Letters with an accent that is written as a character of its own (Unicode, form NFD), as some systems export them, made into the
/// one letter that a font has (form NFC). The Latin, Greek and Cyrillic ones; what the base library has for it is not there without
/// the data of all languages.
/// </summary>
internal static class ComposedLetters
{
    private static readonly (char Mark, string Bases, string Letters)[] Known =
    [
        ('\u0300', "AEIOUaeiouÜüNnĒēŌōWwÂâĂăÊêÔôƠơƯưYyЕИеи", "ÀÈÌÒÙàèìòùǛǜǸǹḔḕṐṑẀẁẦầẰằỀềỒồỜờỪừỲỳЀЍѐѝ"),
        ('\u0301',
            "AEIOUYaeiouyCcLlNnRrSsZzÜüGgÅåÆæØøÇçĒēÏïKkMmÕõŌōPpŨũWwÂâĂăÊêÔôƠơƯưΑΕΗΙΟΥΩϊαεηιϋουωϒГКгк",
            "ÁÉÍÓÚÝáéíóúýĆćĹĺŃńŔŕŚśŹźǗǘǴǵǺǻǼǽǾǿḈḉḖḗḮḯḰḱḾḿṌṍṒṓṔṕṸṹẂẃẤấẮắẾếỐốỚớỨứΆΈΉΊΌΎΏΐάέήίΰόύώϓЃЌѓќ"),
        ('\u0302', "AEIOUaeiouCcGgHhJjSsWwYyZzẠạẸẹỌọ", "ÂÊÎÔÛâêîôûĈĉĜĝĤĥĴĵŜŝŴŵŶŷẐẑẬậỆệỘộ"),
        ('\u0303', "ANOanoIiUuVvÂâĂăEeÊêÔôƠơƯưYy", "ÃÑÕãñõĨĩŨũṼṽẪẫẴẵẼẽỄễỖỗỠỡỮữỸỹ"),
        ('\u0304', "AaEeIiOoUuÜüÄäȦȧÆæǪǫÖöÕõȮȯYyGgḶḷṚṛИиУу", "ĀāĒēĪīŌōŪūǕǖǞǟǠǡǢǣǬǭȪȫȬȭȰȱȲȳḠḡḸḹṜṝӢӣӮӯ"),
        ('\u0306', "AaEeGgIiOoUuȨȩẠạУИиуЖжАаЕе", "ĂăĔĕĞğĬĭŎŏŬŭḜḝẶặЎЙйўӁӂӐӑӖӗ"),
        ('\u0307', "CcEeGgIZzAaOoBbDdFfHhMmNnPpRrSsŚśŠšṢṣTtWwXxYyſ", "ĊċĖėĠġİŻżȦȧȮȯḂḃḊḋḞḟḢḣṀṁṄṅṖṗṘṙṠṡṤṥṦṧṨṩṪṫẆẇẊẋẎẏẛ"),
        ('\u0308',
            "AEIOUaeiouyYHhÕõŪūWwXxtΙΥιυϒЕІеіАаӘәЖжЗзИиОоӨөЭэУуЧчЫы",
            "ÄËÏÖÜäëïöüÿŸḦḧṎṏṺṻẄẅẌẍẗΪΫϊϋϔЁЇёїӒӓӚӛӜӝӞӟӤӥӦӧӪӫӬӭӰӱӴӵӸӹ"),
        ('\u0309', "AaÂâĂăEeÊêIiOoÔôƠơUuƯưYy", "ẢảẨẩẲẳẺẻỂểỈỉỎỏỔổỞởỦủỬửỶỷ"),
        ('\u030A', "AaUuwy", "ÅåŮůẘẙ"),
        ('\u030B', "OoUuУу", "ŐőŰűӲӳ"),
        ('\u030C', "CcDdEeLlNnRrSsTtZzAaIiOoUuÜüGgKkƷʒjHh", "ČčĎďĚěĽľŇňŘřŠšŤťŽžǍǎǏǐǑǒǓǔǙǚǦǧǨǩǮǯǰȞȟ"),
        ('\u030F', "AaEeIiOoRrUuѴѵ", "ȀȁȄȅȈȉȌȍȐȑȔȕѶѷ"),
        ('\u0311', "AaEeIiOoRrUu", "ȂȃȆȇȊȋȎȏȒȓȖȗ"),
        ('\u031B', "OoUu", "ƠơƯư"),
        ('\u0323', "BbDdHhKkLlMmNnRrSsTtVvWwZzAaEeIiOoƠơUuƯưYy", "ḄḅḌḍḤḥḲḳḶḷṂṃṆṇṚṛṢṣṬṭṾṿẈẉẒẓẠạẸẹỊịỌọỢợỤụỰựỴỵ"),
        ('\u0324', "Uu", "Ṳṳ"),
        ('\u0325', "Aa", "Ḁḁ"),
        ('\u0326', "SsTt", "ȘșȚț"),
        ('\u0327', "CcGgKkLlNnRrSsTtEeDdHh", "ÇçĢģĶķĻļŅņŖŗŞşŢţȨȩḐḑḨḩ"),
        ('\u0328', "AaEeIiUuOo", "ĄąĘęĮįŲųǪǫ"),
        ('\u032D', "DdEeLlNnTtUu", "ḒḓḘḙḼḽṊṋṰṱṶṷ"),
        ('\u032E', "Hh", "Ḫḫ"),
        ('\u0330', "EeIiUu", "ḚḛḬḭṴṵ"),
        ('\u0331', "BbDdKkLlNnRrTtZzh", "ḆḇḎḏḴḵḺḻṈṉṞṟṮṯẔẕẖ"),
    ];

    private static readonly Dictionary<(char Base, char Mark), char> Letters = Known
        .SelectMany(known => known.Bases.Zip(known.Letters, (basis, letter) => ((basis, known.Mark), letter)))
        .ToDictionary(known => known.Item1, known => known.letter);

    /// <summary>The text with its letters composed; what has no one letter stays as it is.</summary>
    public static string In(string text)
    {
        var composed = new StringBuilder(text.Length);
        foreach (var letter in text)
        {
            if (composed.Length > 0 && Letters.TryGetValue((composed[^1], letter), out var one))
            {
                composed[^1] = one;
            }
            else
            {
                composed.Append(letter);
            }
        }

        return composed.ToString();
    }
}
